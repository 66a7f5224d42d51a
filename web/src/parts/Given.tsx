import { Link } from "@tanstack/react-router";
import { say } from "../words/say";
import { namedDay } from "./words";

type Props = { student: string; place: "lesson" | "week"; days: string[]; day: string; coming?: string };

// Given leads through the lessons that were given: one back, one on, any of them, and
// to what comes. The day stands in the address.
export function Given({ student, place, days, day, coming }: Props) {
  const all = coming && !days.includes(coming) ? [coming, ...days] : days;
  const home = coming ?? days[0]; // where the place opens by itself
  const at = all.indexOf(day);
  const [later, earlier] = [all[at - 1], all[at + 1]];
  const to = `/students/$student/${place}` as const;
  if (!all.some((d) => d !== day)) return null;
  return (
    <nav aria-label={say("parts.lessonsGiven")} className="screen-only space-y-1">
      <p className="font-[620]">{place === "week" ? say("parts.sheetLesson") : say("parts.lessonOn")}</p>
      <div className="flex items-center gap-2">
        <Step student={student} to={to} day={earlier} says={say("parts.earlier")} />
        <details className="relative min-w-0 flex-1">
          <summary className="min-h-8 cursor-pointer list-none rounded border border-line bg-raised px-1 py-1 text-center">
            {day ? namedDay(day) : say("parts.noneAhead")}
          </summary>
          <ul className="absolute z-10 mt-1 max-h-72 w-full min-w-48 overflow-y-auto rounded border border-line bg-raised py-1">
            {all.map((d) => (
              <li key={d}>
                <Link
                  to={to}
                  params={{ student }}
                  search={d === home ? {} : { day: d }}
                  className={`block px-3 py-1.5 hover:bg-faint ${d === day ? "font-[650]" : ""}`}
                >
                  {namedDay(d)}
                </Link>
              </li>
            ))}
          </ul>
        </details>
        <Step student={student} to={to} day={later} first={later === home} says={say("parts.later")} />
      </div>
    </nav>
  );
}

type StepProps = {
  student: string;
  to: "/students/$student/lesson" | "/students/$student/week";
  day?: string;
  first?: boolean;
  says: string;
};

function Step({ student, to, day, first, says }: StepProps) {
  const look = "min-h-8 rounded border border-line px-2 py-1";
  if (!day) return <span className={`${look} text-soft`}>{says}</span>;
  return (
    <Link to={to} params={{ student }} search={first ? {} : { day }} className={`${look} hover:bg-faint`}>
      {says}
    </Link>
  );
}
