import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem } from "../api/client";
import { act, tell, useOutbox } from "../api/outbox";
import { useEcho } from "../api/useEcho";
import { longDay, weekdayOf } from "../parts/dates";
import { Waiting } from "../parts/Told";
import { say } from "../words/say";
import { Afterwards } from "./Afterwards";
import { Answering } from "./Answering";
import { Beat } from "./Beat";
import { Earlier } from "./Earlier";
import { HowNear } from "./HowNear";
import { Ours } from "./Ours";
import { TaskRow } from "./TaskRow";
import { type FamilyView, familyView } from "./view";

// FamilyPage is one student's week on the family's phone. No account: the
// address is the key.
export function FamilyPage({ token }: { token: string }) {
  const query = useQuery(familyView(token));
  const { waiting, trouble: unsent } = useOutbox();
  const trouble = query.error;
  if (trouble instanceof Problem && (trouble.status === 404 || trouble.status === 410)) {
    return <Closed says={trouble.message} />;
  }
  if (!query.data) return trouble ? <Closed says={trouble.message} again={query.refetch} /> : <Waiting />;
  const pending = waiting.filter((w) => !w.refused).length;
  return (
    <>
      <p aria-live="polite" className={trouble || unsent ? "bg-now-tint px-4 py-2" : "sr-only"}>
        {(trouble || unsent) &&
          say("family.noConnectionJustNow", {
            value: pending ? say("family.marksKeptDeviceSentLater", { pending }) : say("family.whatTickKeptDeviceSent"),
          })}
      </p>
      <Week token={token} served={query.data} />
    </>
  );
}

function Closed({ says, again }: { says: string; again?: () => void }) {
  return (
    <main className="mx-auto max-w-md p-6 pt-16 text-large">
      <h1 className="text-head">{say("family.weekNotOpenHere")}</h1>
      <p className="my-3" role="alert">
        {says}
      </p>
      {again && (
        <button type="button" className="rounded border border-ink px-4 py-2 font-[620]" onClick={again}>
          {say("family.tryAgain")}
        </button>
      )}
    </main>
  );
}

function Week({ token, served }: { token: string; served: FamilyView }) {
  const view = useEcho(served, served.student, 0); // told twice is told once
  const all = view.sheet?.days ?? [];
  const here = all.find((d) => d.date === view.today) ?? all.at(-1);
  const [chosen, setChosen] = useState<string>();
  const day = all.find((d) => d.date === chosen) ?? here;
  const week = day ? Math.floor(all.indexOf(day) / 7) : 0; // a longer time is leafed through by weeks
  const days = all.slice(week * 7, week * 7 + 7);
  const leaf = (by: number) => all[(week + by) * 7];
  if (!view.sheet || !day) {
    return (
      <>
        <Parts view={view} />
        <Closed
          says={say("family.firstPracticeSheetComesAfter", {
            value: view.own ? say("family.your") : `${view.firstName}'s`,
          })}
        />
      </>
    );
  }
  const tickOf = (key: string) => view.ticks.find((t) => t.day === day.date && t.key === key);
  return (
    <main className="mx-auto max-w-md pb-16 text-[16px]" data-testid="family">
      <header className="px-4 pt-5 pb-3">
        <p className="text-soft">{view.studio}</p>
        <h1 className="text-[26px] leading-tight">
          {view.own ? say("family.yourPractice") : say("family.sPractice", { firstName: view.firstName })}
        </h1>
      </header>
      <Parts view={view} />
      {view.sheet.word && <p className="mx-4 mb-3 border-l-4 border-ink pl-3">{view.sheet.word}</p>}
      {view.changed.length > 0 && (
        <section aria-label={say("family.changed")} className="mx-4 mb-3 rounded bg-now-tint p-3">
          <h2 className="font-[650]">{say("family.whatHasChanged")}</h2>
          <ul className="mt-1 list-disc pl-5">
            {view.changed.map((l) => (
              <li key={l.says}>{l.says}</li>
            ))}
          </ul>
        </section>
      )}
      <nav aria-label={say("family.day")} className="grid grid-flow-col gap-1 px-4">
        {days.map((d) => (
          <button
            type="button"
            key={d.date}
            aria-pressed={d === day}
            className={`min-h-12 rounded border leading-tight ${d === day ? "border-ink bg-ink text-raised" : "border-line bg-raised text-ink"}`}
            onClick={() => setChosen(d.date)}
          >
            {weekdayOf(d.date)}
            <b className="block">{Number(d.date.slice(8))}</b>
          </button>
        ))}
      </nav>
      {all.length > 7 && (
        <p className="flex justify-between px-4 pt-2">
          {[-1, 1].map((by) => {
            const to = leaf(by);
            return to ? (
              <button
                key={by}
                type="button"
                className="min-h-11 underline underline-offset-4"
                onClick={() => setChosen(to.date)}
              >
                {by < 0 ? say("family.weekBefore") : say("family.weekAfter")}
              </button>
            ) : (
              <span key={by} />
            );
          })}
        </p>
      )}
      <h2 className="px-4 pt-5 text-head">
        {day.date === view.today ? say("family.today", { day: longDay(day.date) }) : longDay(day.date)}
      </h2>
      <p className="px-4 text-soft">
        {view.today > (all.at(-1)?.date ?? "") && `${say("family.sheetHasEnded")} `}
        {day.lesson
          ? say("family.dayLessonJustListen")
          : day.off
            ? say("family.freeDayNothingDo")
            : say("family.aboutMinutesDayMissedDay", { budget: view.sheet.budget })}
      </p>
      <ul className="mt-3 border-t border-line">
        {day.tasks.map((t) => {
          const tick = tickOf(t.key);
          return (
            <TaskRow
              key={t.key}
              token={token}
              task={t}
              along={view.along}
              heard={view.heard.includes(t.key)}
              done={tick !== undefined}
              onTouch={() =>
                tick
                  ? tell(view.student, { kind: "retracted", ref: tick.id })
                  : act(view.student, view.acts.find((a) => a.day === day.date && a.key === t.key)?.tell ?? [])
              }
            />
          );
        })}
      </ul>
      <section className="px-4 pt-4">
        <h3>{say("family.eachTime")}</h3>
        {view.sheet.lines.map((r) => (
          <p key={r.code} className="mt-1">
            {r.says}
          </p>
        ))}
      </section>
      <HowNear pieces={view.pieces} />
      <Beat />
      <Answering token={token} student={view.student} />
      {!day.off && <Afterwards key={day.date} view={view} day={day} />}
      <Ours view={view} token={token} />
      <Earlier token={token} />
    </main>
  );
}

// Parts leads to the weeks of a student's other instruments.
function Parts({ view }: { view: FamilyView }) {
  if (view.parts.length === 0) return null;
  return (
    <nav aria-label={say("family.instruments")} className="mx-auto flex max-w-md flex-wrap gap-1 px-4 pb-3">
      {view.parts.map((p) => (
        <a
          key={p.path}
          href={p.path}
          aria-current={p.here ? "page" : undefined}
          className={`min-h-11 rounded border px-4 py-2.5 ${p.here ? "border-ink bg-ink text-raised" : "border-line bg-raised"}`}
        >
          {p.plays}
        </a>
      ))}
    </nav>
  );
}
