import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { Fragment, useState } from "react";
import type { Schemas } from "../../api/client";
import { todayView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Days } from "../../parts/Days";
import { Needs } from "../../parts/Needs";
import { usualPaper } from "../../parts/prefs";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown } from "../../parts/Told";
import { longDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { blockNames } from "../lesson/view";
import { OnePage, type Paper, Papers } from "../week/OnePage";

type Lesson = Schemas["TodayLesson"];

// TodayScreen lays a teaching day out: who comes, what each needs, what must be at hand; and
// prints the plans of the day, a page each.
export function TodayScreen() {
  const { day } = useSearch({ from: "/inside/studio/today" });
  const query = useQuery(todayView(day));
  return <Shown query={query}>{(view) => <Today view={view} />}</Shown>;
}

function Today({ view }: { view: Schemas["TodayView"] }) {
  const [paper, setPaper] = useState<Paper>(usualPaper);
  const go = useNavigate();
  const total = view.lessons.reduce((n, l) => n + l.plan.minutes, 0);
  return (
    <main className="flex-1 px-4 pt-3 pb-6 print:p-0">
      <div className="screen-only">
        <StudioPlaces />
        <div className="my-3 flex flex-wrap items-center gap-3">
          <h1 className="text-head">{longDay(view.date)}</h1>
          <p className="mr-auto text-soft">
            {view.lessons.length === 0
              ? say("today.noLessonsDay")
              : say("today.lessonsHMin", {
                  lessons: view.lessons.length,
                  hours: Math.floor(total / 60),
                  n: total % 60,
                })}
          </p>
          <Days
            date={view.date}
            today={view.today}
            to={(to) => go({ to: "/studio/today", search: to === view.today ? {} : { day: to } })}
          />
        </div>
        {view.lessons.length > 0 && (
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <Button onClick={() => window.print()}>{say("today.printPlans", { lessons: view.lessons.length })}</Button>
            <Papers paper={paper} choose={setPaper} />
          </div>
        )}
        <ol className="divide-y divide-faint rounded bg-raised px-4">
          {view.lessons.map((l) => (
            <Row key={l.student.id} lesson={l} date={view.date} />
          ))}
        </ol>
      </div>
      <div className="hidden print:block" aria-hidden="true">
        {view.lessons.map((l) => (
          <OnePage key={l.student.id} paper={paper} large={false}>
            <Plan lesson={l} view={view} />
          </OnePage>
        ))}
      </div>
    </main>
  );
}

function Row({ lesson: l, date }: { lesson: Lesson; date: string }) {
  const student = l.student.id;
  return (
    <li className="grid gap-x-5 gap-y-1 py-3 lg:grid-cols-[13rem_1fr_1.2fr]">
      <div>
        <Link
          to="/students/$student/lesson"
          params={{ student }}
          search={l.student.next === date ? {} : { day: date }}
          className="text-large font-[650] underline-offset-4 hover:underline"
        >
          {timeOfDay(l.start)} {l.student.firstName}
        </Link>
        <p className="text-soft">
          {say("today.min", { age: l.student.age, plays: l.student.plays, minutes: l.plan.minutes })}
          {l.state !== "planned" && ` · ${l.state === "open" ? say("today.begun") : say("today.finished")}`}
        </p>
      </div>
      <div>
        <p>
          {l.plan.blocks
            .filter((b) => b.title)
            .map((b) => b.title)
            .join(" · ")}
        </p>
        {l.brings.length > 0 && (
          <p className="mt-1">
            <span className="text-soft">{say("today.haveReady")}</span>
            {l.brings.map((b, i) => (
              <Fragment key={b.sort + b.says}>
                {i > 0 && "; "}
                <Bring bring={b} />
              </Fragment>
            ))}
          </p>
        )}
      </div>
      <Needs student={student} needs={l.needs} />
    </li>
  );
}

// Bring names what must be at hand; notes lead to where they print.
export function Bring({ bring: b }: { bring: Schemas["Bring"] }) {
  if (b.sort === "tape") return say("today.tapeMeasureWith");
  if (b.sort === "things") return b.says;
  const after = b.after ? say("today.after", { after: b.after }) : "";
  if (b.item)
    return (
      <>
        <Link to="/items/$item" params={{ item: b.item }} className="underline underline-offset-4">
          {say("today.notesOf", { says: b.says })}
        </Link>
        {after}
      </>
    );
  return `${b.says}${b.book ? ` (${b.book})` : ""}${after}`;
}

// Plan is a lesson's plan as it prints: the name first, room to write beside each block.
function Plan({ lesson: l, view }: { lesson: Lesson; view: Schemas["TodayView"] }) {
  return (
    <section className="text-[15px]">
      <p className="text-soft">
        {view.studio} · {longDay(view.date)}, {timeOfDay(l.start)}
      </p>
      <p className="text-[26px] font-[650]">
        {l.student.firstName} {l.student.familyName}
        <span className="ml-3 text-[15px] font-normal">
          {l.student.age} · {l.student.plays} · {say("count.minute", { n: l.plan.minutes })}
        </span>
      </p>
      {[...l.plan.says, ...l.needs.map((n) => n.why)].map((r) => (
        <p key={r.says}>{r.says}</p>
      ))}
      <table className="mt-3 w-full border-collapse">
        <tbody>
          {l.plan.blocks.map((b) => (
            <tr key={b.key} className="border-t border-line align-top">
              <td className="w-16 py-1.5">{say("today.min2", { minutes: b.minutes })}</td>
              <td className="w-[45%] py-1.5">
                <b className="font-[620]">{b.title || blockNames[b.kind]}</b>
                {b.title && <span className="ml-2 text-soft">{blockNames[b.kind]?.toLowerCase()}</span>}
                {[b.cue, ...b.schools].filter(Boolean).map((text) => (
                  <span key={text} className="block">
                    {text}
                  </span>
                ))}
                {b.activity && <span className="block">{b.activity.levels[(b.level ?? 1) - 1]}</span>}
              </td>
              <td className="py-1.5 pr-3 text-soft">{b.why.map((r) => r.says).join(" ")}</td>
              <td className="w-[18%] border-l border-line" />
            </tr>
          ))}
        </tbody>
      </table>
      {l.asked.length > 0 && <p className="mt-3">{say("today.askedHome", { list: l.asked.join(" ") })}</p>}
      {l.brings.length > 0 && (
        <p className="mt-1">
          {say("today.haveReady2", {
            list: l.brings
              .map((b) =>
                b.sort === "tape"
                  ? say("today.aTape")
                  : b.sort === "notes"
                    ? say("today.notesOf", { says: b.says })
                    : b.says,
              )
              .join("; "),
          })}
        </p>
      )}
    </section>
  );
}
