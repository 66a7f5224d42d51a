import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { namedDay } from "../../parts/words";
import { say } from "../../words/say";

// Weeks is what was asked at home, week by week, and what was ticked of it.
export function Weeks({ student, weeks }: { student: string; weeks: Schemas["RecordWeek"][] }) {
  if (weeks.length === 0) return null;
  return (
    <section aria-label={say("record.askedHome")} className="mt-5">
      <h2 className="mb-1.5">{say("record.askedHomeTicked")}</h2>
      <ul className="divide-y divide-faint rounded bg-raised px-3">
        {weeks.map((w) => {
          const ticked = w.lines.reduce((n, l) => n + l.ticked, 0);
          const asked = w.lines.reduce((n, l) => n + l.days, 0);
          return (
            <li key={w.day}>
              <details className="py-1">
                <summary className="cursor-pointer py-0.5">
                  {say("record.ofTicked", { day: namedDay(w.day), ticked, asked })}
                  {w.revisions > 1 && (
                    <span className="text-soft">{say("record.givenTimes", { revisions: w.revisions })}</span>
                  )}
                </summary>
                <ul className="pb-1 pl-4 text-soft">
                  {w.lines.map((l) => (
                    <li key={l.key}>
                      {l.title && `${l.title}: `}
                      {say("record.onDays", { says: l.says, days: l.days })}
                      {l.ticked > 0 && <span className="text-keep">{say("record.ticked", { ticked: l.ticked })}</span>}
                    </li>
                  ))}
                </ul>
                <p className="flex gap-4 pb-2 pl-4">
                  {(["week", "lesson"] as const).map((place) => (
                    <Link
                      key={place}
                      to={`/students/$student/${place}`}
                      params={{ student }}
                      search={{ day: w.day }}
                      className="font-[620] underline underline-offset-4"
                    >
                      {place === "week" ? say("record.theSheet") : say("record.theLesson")}
                    </Link>
                  ))}
                </p>
              </details>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
