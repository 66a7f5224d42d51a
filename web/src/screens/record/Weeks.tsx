import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { namedDay, plural } from "../../parts/words";

// Weeks is what was asked at home, week by week, and what was ticked of it.
export function Weeks({ student, weeks }: { student: string; weeks: Schemas["RecordWeek"][] }) {
  if (weeks.length === 0) return null;
  return (
    <section aria-label="Asked at home" className="mt-5">
      <h2 className="mb-1.5">Asked at home, and ticked</h2>
      <ul className="divide-y divide-faint rounded bg-raised px-3">
        {weeks.map((w) => {
          const ticked = w.lines.reduce((n, l) => n + l.ticked, 0);
          const asked = w.lines.reduce((n, l) => n + l.days, 0);
          return (
            <li key={w.day}>
              <details className="py-1">
                <summary className="cursor-pointer py-0.5">
                  {namedDay(w.day)}: {ticked} of {asked} ticked
                  {w.revisions > 1 && <span className="text-soft"> · given {w.revisions} times</span>}
                </summary>
                <ul className="pb-1 pl-4 text-soft">
                  {w.lines.map((l) => (
                    <li key={l.key}>
                      {l.title && `${l.title}: `}
                      {l.says}, on {plural(l.days, "day")}
                      {l.ticked > 0 && <span className="text-keep">, ticked {l.ticked}×</span>}
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
                      {place === "week" ? "The sheet" : "The lesson"}
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
