import type { Schemas } from "../../api/client";
import { span } from "../../parts/words";
import { rich, say } from "../../words/say";

// Minute is what a teacher reads off the score before giving it: for a student
// with what is new and how long it may take.
export function Minute({ read, name }: { read: Schemas["ReadingView"]; name?: string }) {
  return (
    <section aria-label={say("item.readOffScore")} className="rounded bg-raised px-4 py-3 print:p-0">
      {name && (
        <>
          <h2 className="mb-1">{say("item.newFor", { name })}</h2>
          {read.new.length === 0 ? (
            <p>{say("item.nothingAllWasMetBefore")}</p>
          ) : (
            <ul className="mb-1 list-disc space-y-0.5 pl-4 marker:text-now">
              {read.new.map((r) => (
                <li key={r.says}>{r.says}</li>
              ))}
            </ul>
          )}
          {read.weeks && read.load && (
            <p className="mb-2">
              {rich("item.likelyLearnDifficulty", {
                weeks: span(read.weeks.low, read.weeks.high),
                b: (text) => <b className="font-[650]">{text}</b>,
                amount: read.load.total.toFixed(1),
              })}
              {read.load.slope !== "step" && `, a ${read.load.slope}`}.
            </p>
          )}
        </>
      )}
      <h2 className="mb-1">{say("item.readOffScore")}</h2>
      <ul className="space-y-0.5">
        {read.minute.map((r) => (
          <li key={r.says}>{r.says}</li>
        ))}
      </ul>
    </section>
  );
}
