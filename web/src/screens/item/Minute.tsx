import type { Schemas } from "../../api/client";
import { sentence, span } from "../../parts/words";

// Minute is what a teacher reads off the score before giving it: for a student
// with what is new and how long it may take.
export function Minute({ read, name }: { read: Schemas["ReadingView"]; name?: string }) {
  return (
    <section aria-label="Read off the score" className="rounded bg-raised px-4 py-3 print:p-0">
      {name && (
        <>
          <h2 className="mb-1">New for {name}</h2>
          {read.new.length === 0 ? (
            <p>Nothing: all of it was met before.</p>
          ) : (
            <ul className="mb-1 list-disc space-y-0.5 pl-4 marker:text-now">
              {read.new.map((r) => (
                <li key={sentence(r)}>{sentence(r)}</li>
              ))}
            </ul>
          )}
          {read.weeks && read.load && (
            <p className="mb-2">
              Likely <b className="font-[650]">{span(read.weeks.low, read.weeks.high)}</b> to a foothold; load{" "}
              {read.load.total.toFixed(1)}
              {read.load.slope !== "step" && `, a ${read.load.slope}`}.
            </p>
          )}
        </>
      )}
      <h2 className="mb-1">Read off the score</h2>
      <ul className="space-y-0.5">
        {read.minute.map((r) => (
          <li key={sentence(r)}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}
