import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { clock, namedDay } from "../../parts/words";

type Document = Schemas["Document"];

const reasons: Record<Document["reason"], string> = {
  given: "given at the end of the lesson",
  "closed-again": "the lesson was taken up again and closed",
  "opened-again": "the lesson was begun again",
  pain: "a pain was told",
  "pain-cleared": "the pain was cleared",
  days: "other days or minutes at home",
  "plan-changed": "you changed the plan",
  edited: "you changed a line",
  "next-lesson": "the next lesson is on another day, or was not given",
};

const authors = { teacher: "you", family: "the family", program: "the program" };

type Props = { student: string; day: string; shown: Document; revisions: Document[]; zone: string };

// Revisions lists how often a sheet was given, and why; each can be read again.
export function Revisions({ student, day, shown, revisions, zone }: Props) {
  const newest = revisions.at(-1);
  return (
    <section aria-label="Revisions of this sheet">
      {newest && shown.revision < newest.revision && (
        <p role="status" className="mb-2 border-l-4 border-warn pl-2">
          This is not what holds now: the sheet was given anew.
        </p>
      )}
      <h2>{revisions.length > 1 ? "Given anew" : "Given"}</h2>
      <ol className="space-y-1">
        {revisions.map((d) => (
          <li key={d.id} className={d.revision === shown.revision ? "font-[620]" : "text-soft"}>
            <Link
              to="/students/$student/week"
              params={{ student }}
              search={{ day, revision: d === newest ? undefined : d.revision }}
              className="underline underline-offset-4"
            >
              {namedDay(d.at)}, {clock(d.at, zone)}
            </Link>
            : {reasons[d.reason]}
            {d.reason !== "given" && `, told by ${authors[d.by]}`}
          </li>
        ))}
      </ol>
    </section>
  );
}
