import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useEcho } from "../../api/useEcho";
import { useDay, weekView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Given } from "../../parts/Given";
import { usualPaper } from "../../parts/prefs";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { FamilyLink } from "./FamilyLink";
import { Home } from "./Home";
import { Lines } from "./Lines";
import { OnePage, type Paper, Papers } from "./OnePage";
import { Revisions } from "./Revisions";
import { Send } from "./Send";
import { Sheet } from "./Sheet";

// WeekScreen shows the sheet as it prints: one page.
export function WeekScreen() {
  const { student } = useParams({ from: "/inside/students/$student/week" });
  const { day, revision } = useSearch({ from: "/inside/students/$student/week" });
  const query = useQuery(weekView(student, day, revision));
  return (
    <Shown query={query}>
      {(view) => <Week key={student} served={view} fetched={query.dataUpdatedAt} revision={revision} />}
    </Shown>
  );
}

type Props = { served: Schemas["WeekView"]; fetched: number; revision?: number };

function Week({ served, fetched, revision }: Props) {
  const student = served.student.id;
  const view = useEcho(served, student, fetched);
  const zone = useDay().data?.zone ?? "UTC";
  const [paper, setPaper] = useState<Paper>(usualPaper);
  const [large, setLarge] = useState(false);
  return view.sheet ? (
    <main className="flex flex-1 flex-col gap-4 px-4 pb-6 lg:flex-row print:block print:p-0">
      <OnePage paper={paper} large={large}>
        <Sheet view={view} sheet={view.sheet} large={large} />
      </OnePage>
      <aside className="screen-only w-72 shrink-0 space-y-4">
        <Given student={student} place="week" days={view.given} day={view.sheet.from} />
        {view.sheet.from === view.given[0] && !revision && (
          <Send key={student} student={view.student} sending={view.sending} paper={paper} />
        )}
        {view.sheet.from === view.given[0] && !revision && <Lines student={student} view={view} sheet={view.sheet} />}
        {view.document && (
          <Revisions
            student={student}
            day={view.sheet.from}
            shown={view.document}
            revisions={view.revisions}
            zone={zone}
          />
        )}
        <fieldset>
          <legend className="mb-1 font-[620]">{say("week.paper")}</legend>
          <Papers paper={paper} choose={setPaper} />
          <label className="mt-1 flex items-center gap-1.5">
            <input type="checkbox" checked={large} onChange={(e) => setLarge(e.target.checked)} />{" "}
            {say("week.largePrint")}
          </label>
        </fieldset>
        <Button onClick={() => window.print()}>{say("week.printSheet")}</Button>
        {view.sheet.leftOut.length > 0 && (
          <section>
            <h2>{say("week.leftOutWeek")}</h2>
            {view.sheet.leftOut.map((r) => (
              <p key={r.says} className="text-soft">
                {r.says}
              </p>
            ))}
          </section>
        )}
        <FamilyLink student={student} open={view.links} firstName={view.student.firstName} own={false} />
        {view.ownLink && <FamilyLink student={student} open={view.ownLinks} firstName={view.student.firstName} own />}
        <Home home={view.home} />
        <p className="text-soft">
          {say("week.upkeepTakesMinutesHereApproach", {
            amount: Math.round(view.sheet.share * 100),
            asked: Math.round(view.sheet.asked * 100),
          })}
        </p>
      </aside>
    </main>
  ) : (
    <main className="p-4">
      <div className="max-w-md rounded bg-raised p-6">
        <h2 className="text-head">{say("week.noPracticeSheetYet")}</h2>
        <p className="my-2 text-soft">{say("week.writtenWhenLessonClosedFrom")}</p>
        <Link to="/students/$student/lesson" params={{ student }} className="font-[620] underline underline-offset-4">
          {say("week.toTheLesson")}
        </Link>
      </div>
    </main>
  );
}
