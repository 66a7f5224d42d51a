import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { act, tell } from "../../api/outbox";
import { recordView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown } from "../../parts/Told";
import { namedDay, shortDay, span, tellOf, time } from "../../parts/words";
import { say } from "../../words/say";
import { Home } from "../week/Home";
import { CheckIn } from "./CheckIn";
import { Played } from "./Played";
import { Weeks } from "./Weeks";
import { Year } from "./Year";

// RecordScreen: achievements in order, and under them all that was told, day
// by day, where a slip can be taken back.
export function RecordScreen() {
  const { student } = useParams({ from: "/inside/students/$student/record" });
  const [most, setMost] = useState<number>();
  const query = useQuery({ ...recordView(student, most), placeholderData: keepPreviousData });
  const zone = useDay().data?.zone ?? "UTC";
  const [all, setAll] = useState(false);
  return (
    <Shown query={query}>
      {(view) => {
        const days = Object.entries(Object.groupBy(view.entries, (e) => e.fact.at.slice(0, 10)));
        return (
          <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-6 px-4 pb-6 lg:grid-cols-[320px_1fr]">
            <Year student={student} />
            <section aria-label={say("record.achievements")}>
              <h2 className="mb-2">
                {say("record.piecesSecureLessonsGiven", { footholds: view.footholds, lessons: view.lessons })}
              </h2>
              <ol className="divide-y divide-faint rounded bg-raised px-3">
                {view.done.map((e) => (
                  <li key={e.at + e.title + e.part} className="flex gap-3 py-1.5">
                    <span className="w-24 shrink-0 text-soft">{namedDay(e.at)}</span>
                    <span>
                      {e.title}
                      {e.part && `: ${e.part}`}
                    </span>
                  </li>
                ))}
                {view.done.length === 0 && (
                  <li className="py-2 text-soft">{say("record.firstLearntPieceWillAppear")}</li>
                )}
              </ol>
              <Home home={view.home} />
              <CheckIn student={student} talk={view.home.talk} />
              <Played student={student} played={view.played} />
              <Foretold view={view} />
              <Weeks student={student} weeks={view.weeks} />
              <Skills student={student} skills={view.skills} />
            </section>
            <section aria-label={say("record.everythingNoted")}>
              <h2 className="mb-2">{say("record.everythingNoted")}</h2>
              {days.slice(0, all ? undefined : 12).map(([day, entries]) => (
                <div key={day} className="mb-3 rounded bg-raised px-3 py-1.5">
                  <h3 className="py-1">{namedDay(day)}</h3>
                  <ul className="divide-y divide-faint">
                    {entries?.map((e) => (
                      <Line key={e.fact.id} entry={e} zone={zone} student={student} />
                    ))}
                  </ul>
                </div>
              ))}
              {!all && days.length > 12 && (
                <Button onClick={() => setAll(true)}>{say("record.showEarlierDays", { n: days.length - 12 })}</Button>
              )}
              {(all || days.length <= 12) && view.more > 0 && (
                <Button onClick={() => setMost(view.entries.length + 2000)} disabled={query.isFetching}>
                  {say("record.showEarlierOnesAll", { more: view.more })}
                </Button>
              )}
              {days.length === 0 && <p className="text-soft">{say("record.whatTellLessonsWillStand")}</p>}
            </section>
          </main>
        );
      }}
    </Shown>
  );
}

// Foretold lists how long pieces took beside what their first lessons foretold.
function Foretold({ view }: { view: Schemas["RecordView"] }) {
  const [all, setAll] = useState(false);
  if (view.foretold.length === 0) return null;
  const most = Math.max(...view.foretold.map((f) => Math.max(f.weeks, f.usual.high)));
  return (
    <section aria-label={say("record.whatWasForetold")} className="mt-5">
      <h2 className="mb-1.5">{say("record.whatWasForetold")}</h2>
      <p className="mb-1.5 text-soft">
        {say("record.piecesWereLearntWeeksExpected", { kept: view.kept, foretold: view.foretold.length })}
      </p>
      <ul className="divide-y divide-faint rounded bg-raised px-3">
        {view.foretold.slice(0, all ? undefined : 6).map((f) => (
          <li key={f.rung} className="flex gap-3 py-1.5">
            <span className="min-w-0 flex-1">
              {f.title}
              <Lay of={f} most={most} />
            </span>
            <span className="text-right text-soft">
              {f.weeks < 1 ? say("record.itsFirstLesson") : say("count.week", { n: f.weeks })}
              {say("record.foretold", { weeks: span(f.usual.low, f.usual.high) })}
            </span>
          </li>
        ))}
      </ul>
      {!all && view.foretold.length > 6 && (
        <Button look="quiet" onClick={() => setAll(true)}>
          {say("record.showMore", { n: view.foretold.length - 6 })}
        </Button>
      )}
    </section>
  );
}

// Lay draws where the weeks that a piece took lay in those that were foretold.
function Lay({ of: f, most }: { of: Schemas["Foretold"]; most: number }) {
  const at = (weeks: number) => `${(100 * weeks) / most}%`;
  return (
    <span aria-hidden="true" className="relative my-1 block h-2 rounded bg-faint">
      <span
        className="absolute inset-y-0 rounded bg-line"
        style={{ left: at(f.usual.low), width: at(Math.max(f.usual.high - f.usual.low, most / 50)) }}
      />
      <span
        className={`absolute -top-0.5 size-3 -translate-x-1/2 rounded-full ${f.in > 0 ? "bg-keep" : "bg-warn"}`}
        style={{ left: at(f.weeks) }}
      />
    </span>
  );
}

const stateNames = {
  missing: say("record.missing"),
  learning: say("record.beingLearnt"),
  tasted: say("record.tastedAhead"),
  rusty: say("record.rusty"),
  secure: say("record.secure"),
};
const stateInk = {
  missing: "text-warn",
  learning: "text-now",
  tasted: "text-ahead",
  rusty: "text-warn",
  secure: "text-keep",
};

// Skills lists how each skill stands; what speaks for it is one touch away.
function Skills({ student, skills }: { student: string; skills: Schemas["SkillMark"][] }) {
  const byState = Object.entries(Object.groupBy(skills, (s) => s.state)) as [
    keyof typeof stateNames,
    Schemas["SkillMark"][],
  ][];
  return byState.map(([state, list]) => (
    <section key={state} className="mt-5">
      <h2 className={`mb-1.5 ${stateInk[state]}`}>
        {stateNames[state]}: {say("count.skill", { n: list.length })}
      </h2>
      <ul className="divide-y divide-faint rounded bg-raised px-3">
        {list.map((s) => (
          <li key={s.id}>
            <details className="py-1">
              <summary className="cursor-pointer py-0.5">{s.name}</summary>
              <p className="pb-1 pl-4 text-soft">{s.evidence.map(evidence).join(" · ")}</p>
              <Button
                look="quiet"
                className="mb-1 ml-2 px-2! py-0.5!"
                aria-label={
                  state === "missing"
                    ? say("record.goesNow", { name: s.name })
                    : say("record.oneMissing", { name: s.name })
                }
                onClick={() =>
                  tell(student, { kind: "probed", probe: s.id, outcome: state === "missing" ? "pass" : "not-yet" })
                }
              >
                {state === "missing" ? say("record.goesNow2") : say("record.oneMissing2")}
              </Button>
            </details>
          </li>
        ))}
      </ul>
    </section>
  ));
}

function evidence(e: Schemas["Evidence"]) {
  switch (e.kind) {
    case "foothold":
      return say("record.learnt", { title: e.title, day: shortDay(e.at) });
    case "taught":
      return say("record.lessonOn", { title: e.title, day: shortDay(e.at) });
    case "probe":
      return say("record.whenWasAskedAfter", {
        n:
          { pass: say("record.passed"), nearly: say("record.nearly"), "not-yet": say("record.missing") }[e.title] ??
          e.title,
        day: shortDay(e.at),
      });
    case "head-start":
      return say("record.preparation", { day: shortDay(e.at), title: e.title });
    default:
      return say("record.takenGrantedFromWhereStudent");
  }
}

function Line({ entry, zone, student }: { entry: Schemas["Entry"]; zone: string; student: string }) {
  const [editing, edit] = useState(false);
  const body = entry.fact.body;
  if (editing && body.kind === "noted") return <Edit entry={entry} text={body.text} close={() => edit(false)} />;
  const what = `${entry.title ? `${entry.title}: ` : ""}${tellOf(entry)}`;
  return (
    <li className="flex flex-wrap items-center gap-x-3 py-0.5">
      <span className="w-12 shrink-0 text-soft">{time(entry.fact.at, zone)}</span>
      <span className={`min-w-40 flex-1 ${entry.back ? "text-soft line-through" : ""}`}>{what}</span>
      {entry.fact.by !== "teacher" && (
        <span className="text-small text-soft">
          {entry.fact.by === "family" ? say("record.byTheFamily") : say("record.byTheProgram")}
        </span>
      )}
      {entry.back && <span className="text-small text-soft">{say("record.takenBack")}</span>}
      {body.kind === "noted" && !entry.back && (
        <Button
          look="quiet"
          className="px-2! py-0.5!"
          aria-label={say("record.edit", { what })}
          onClick={() => edit(true)}
        >
          {say("record.edit2")}
        </Button>
      )}
      <Button
        look="quiet"
        className="px-2! py-0.5!"
        aria-label={`${entry.back ? say("record.putBack") : say("record.takeBack")}: ${what}`}
        onClick={() => act(student, entry.undo)}
      >
        {entry.back ? say("record.putBack") : say("record.takeBack")}
      </Button>
    </li>
  );
}

// Edit writes a note anew, at the time of the first; the one before is taken back.
function Edit({ entry, text, close }: { entry: Schemas["Entry"]; text: string; close: () => void }) {
  const { student, at, id } = entry.fact;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const now = String(new FormData(e.currentTarget).get("note")).trim();
    if (now && now !== text) {
      tell(student, { kind: "retracted", ref: id });
      tell(student, { kind: "noted", text: now }, new Date(at));
    }
    close();
  };
  return (
    <li>
      <form onSubmit={submit} className="flex gap-2 py-1">
        <input
          // biome-ignore lint/a11y/noAutofocus: the teacher asked for this field
          autoFocus
          name="note"
          aria-label={say("record.theNote")}
          maxLength={2000}
          defaultValue={text}
          onKeyDown={(e) => e.key === "Escape" && close()}
          className="flex-1 rounded border border-line bg-ground px-2 py-1"
        />
        <Button type="submit">{say("record.save")}</Button>
      </form>
    </li>
  );
}
