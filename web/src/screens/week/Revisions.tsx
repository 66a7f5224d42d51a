import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { clock, namedDay } from "../../parts/words";
import { say } from "../../words/say";

type Document = Schemas["Document"];

const reasons: Record<Document["reason"], string> = {
  given: say("week.givenEndLesson"),
  "closed-again": say("week.lessonWasTakenUpAgain"),
  "opened-again": say("week.lessonWasBegunAgain"),
  pain: say("week.painWasNoted"),
  "pain-cleared": say("week.painWasCleared"),
  days: say("week.otherDaysMinutesHome"),
  "plan-changed": say("week.changedPlan"),
  edited: say("week.changedLine"),
  "next-lesson": say("week.nextLessonAnotherDayWas"),
};

const authors = { teacher: say("week.you"), family: say("week.theFamily"), program: say("week.theProgram") };

type Props = { student: string; day: string; shown: Document; revisions: Document[]; zone: string };

// Revisions lists how often a sheet was given, and why; each can be read again.
export function Revisions({ student, day, shown, revisions, zone }: Props) {
  const newest = revisions.at(-1);
  return (
    <section aria-label={say("week.revisionsSheet")}>
      {newest && shown.revision < newest.revision && (
        <p role="status" className="mb-2 border-l-4 border-warn pl-2">
          {say("week.notWhatHoldsNowSheet")}
        </p>
      )}
      <h2>{revisions.length > 1 ? say("week.givenAnew") : say("week.given")}</h2>
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
            {d.reason !== "given" && say("week.by", { authors: authors[d.by] })}
          </li>
        ))}
      </ol>
    </section>
  );
}
