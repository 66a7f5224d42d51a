import { useQueries, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../../api/client";
import { sheetsView, weekView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Days } from "../../parts/Days";
import { usualPaper } from "../../parts/prefs";
import { Shown, Trouble } from "../../parts/Told";
import { useInTurn } from "../../parts/useInTurn";
import { longDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { OnePage, type Paper, Papers } from "./OnePage";
import { Fared, onTheWay, sendSheet } from "./Send";
import { Sheet } from "./Sheet";

type DaySheet = Schemas["DaySheet"];

// SheetsScreen sends or prints all sheets of a day at once.
export function SheetsScreen() {
  const { day } = useSearch({ from: "/inside/sheets" });
  const query = useQuery(sheetsView(day));
  return <Shown query={query}>{(view) => <Sheets view={view} />}</Shown>;
}

function Sheets({ view }: { view: Schemas["SheetsView"] }) {
  const [paper, setPaper] = useState<Paper>(usualPaper);
  const go = useNavigate();
  const closed = view.sheets.filter((s) => s.closed);
  const ready = closed.filter((s) => s.contact && !onTheWay(s.sending));
  const send = useInTurn(
    (s: DaySheet) => s.name,
    (s) => sendSheet(s.student, ulid(), paper, view.date),
  );
  return (
    <main className="flex flex-1 flex-col gap-4 px-4 pt-3 pb-6 print:p-0">
      <div className="screen-only max-w-3xl">
        <div className="mb-1 flex flex-wrap items-center gap-2">
          <h1 className="mr-auto text-head">{say("week.sheetsOf", { day: longDay(view.date) })}</h1>
          <Days
            date={view.date}
            today={view.today}
            to={(to) => go({ to: "/sheets", search: to === view.today ? {} : { day: to } })}
          />
        </div>
        <p className="mb-3 text-soft">
          {closed.length === 0
            ? say("week.sheetReadyWhenItsLesson")
            : say("week.lessonsClosed", { closed: closed.length, sheets: view.sheets.length })}
        </p>
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <Button look="main" disabled={send.isPending || ready.length === 0} onClick={() => send.mutate(ready)}>
            {send.isPending
              ? say("week.sendingOf", { done: send.done, all: send.variables.length })
              : ready.length === 0
                ? say("week.sendAll")
                : say("week.sendSheets", { ready: ready.length })}
          </Button>
          <Button disabled={closed.length === 0} onClick={() => window.print()}>
            {closed.length === 0 ? say("week.printAll") : say("week.printSheets", { closed: closed.length })}
          </Button>
          <Papers paper={paper} choose={setPaper} />
          <Link to="/mailbox" className="ml-auto underline underline-offset-4">
            {say("week.seeMailbox")}
          </Link>
        </div>
        {send.isPending && (
          <progress className="mb-3 w-full" max={send.variables.length} value={send.done}>
            {send.done}
          </progress>
        )}
        {send.data && send.data.length > 0 && (
          <Trouble>{say("week.sheetsDidNotGoOut", { n: send.data.length, list: send.data.join("; ") })}</Trouble>
        )}
        <ol className="mt-3 divide-y divide-faint rounded bg-raised px-4">
          {view.sheets.map((s) => (
            <li
              key={s.student}
              className="grid grid-cols-[3rem_1fr_auto] items-baseline gap-3 py-2 sm:grid-cols-[4rem_10rem_1fr_auto]"
            >
              <span className="text-soft">{timeOfDay(s.start)}</span>
              <b className="font-[620]">{s.name}</b>
              <div className="max-sm:order-last max-sm:col-span-3">
                {!s.closed && <span className="text-soft">{say("week.lessonNotClosedYet")}</span>}
                {s.closed && !s.contact && say("week.noMailAddressYet")}
                {s.closed && s.contact && !s.sending && (
                  <span className="text-soft">{say("week.readyTo", { contact: s.contact })}</span>
                )}
                {s.sending && <Fared sending={s.sending} />}
              </div>
              <Link
                to="/students/$student/week"
                params={{ student: s.student }}
                search={s.closed && view.date !== view.today ? { day: view.date } : {}}
                className="underline underline-offset-4"
              >
                {s.closed ? say("week.seeIt") : say("week.week")}
              </Link>
            </li>
          ))}
          {view.sheets.length === 0 && <li className="py-3 text-soft">{say("week.noLessonsDay")}</li>}
        </ol>
      </div>
      <Printed students={closed.map((s) => s.student)} day={view.date} paper={paper} />
    </main>
  );
}

// Printed holds the sheets as they print, one after another.
function Printed({ students, day, paper }: { students: string[]; day: string; paper: Paper }) {
  const weeks = useQueries({ queries: students.map((s) => weekView(s, day)) });
  return (
    <section aria-label={say("week.theyPrint")} className="max-w-[960px] space-y-6">
      {weeks.map(
        ({ data }) =>
          data?.sheet && (
            <OnePage key={data.student.id} paper={paper} large={false}>
              <Sheet view={data} sheet={data.sheet} large={false} />
            </OnePage>
          ),
      )}
    </section>
  );
}
