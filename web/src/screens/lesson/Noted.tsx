import type { Noted as Entry } from "../../api/echo";
import { clock, tellOf } from "../../parts/words";
import type { LessonView } from "./view";

// Noted lists what was told in this lesson, newest last, and says of each mark
// whether the studio has it yet.
export function Noted({ view, zone }: { view: LessonView; zone: string }) {
  const told = view.noted.filter((e: Entry) => !e.back && e.fact.body.kind !== "lesson_opened");
  return (
    <section aria-label="Noted today">
      <h2 className="mb-1.5">{view.today ? "Noted today" : "Noted"}</h2>
      <ol className="max-h-[300px] divide-y divide-faint overflow-y-auto rounded bg-raised px-3" aria-live="polite">
        {told.map((e: Entry) => (
          <li key={e.fact.id} className="flex gap-3 py-1.5">
            <span className="w-12 shrink-0 text-soft">{clock(e.fact.at, zone)}</span>
            <span className="flex-1">
              {e.title && <b className="font-[620]">{e.title} </b>}
              {tellOf(e)}
            </span>
            {e.waiting && <span className="text-small text-now">kept here</span>}
          </li>
        ))}
        {told.length === 0 && (
          <li className="py-2 text-soft">
            {view.state === "planned" ? "Marks will stand here once the lesson begins." : "Nothing yet."}
          </li>
        )}
      </ol>
    </section>
  );
}
