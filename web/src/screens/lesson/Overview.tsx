import { say } from "../../words/say";
import { blockNames, type LessonView } from "./view";

const ink: Record<string, string> = { now: "text-now", upkeep: "text-keep", ahead: "text-ahead", "": "text-soft" };

// Overview is the plan before the lesson: each block and why it is there.
export function Overview({ view, go }: { view: LessonView; go: (i: number) => void }) {
  return (
    <section aria-label={say("lesson.thePlan")}>
      <h2 className="text-huge leading-tight">{say("lesson.thePlan")}</h2>
      <ol className="mt-3 divide-y divide-faint">
        {view.plan.blocks.map((b, i) => (
          <li key={b.start}>
            <button
              type="button"
              onClick={() => go(i)}
              className="grid w-full grid-cols-[3.2rem_1fr] items-baseline md:grid-cols-[3.2rem_18rem_1fr] gap-2 py-[7px] text-left hover:bg-faint"
            >
              <span className="text-soft">{say("lesson.min", { minutes: b.minutes })}</span>
              <span className="text-large font-[620]">
                {b.title || blockNames[b.kind]}
                {b.title && (
                  <span className={`ml-2 text-small font-normal ${ink[b.band]}`}>
                    {blockNames[b.kind]?.toLowerCase()}
                  </span>
                )}
              </span>
              <span className="text-soft max-md:col-start-2">
                {b.why.map((r) => r.says).join(" ") || plain[b.kind]}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

const plain: Record<string, string> = {
  "set-up": say("lesson.seatFeetHandFromFloor"),
  close: say("lesson.somethingMadeUpChosenStudent"),
  home: say("lesson.whatDoFirstDayWhy"),
};
