import { useQuery } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { act, type Body, tell } from "../../api/outbox";
import { approachView, effectsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { HomeDays } from "../../parts/HomeDays";
import { HomeForm } from "../../parts/HomeForm";
import { useInstruments } from "../../parts/instruments";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { Contact } from "../week/Send";
import { Person } from "./Person";

// SettingsScreen: a student's approach where teachers disagree, with what a
// change would do shown before it is saved; the books, the taste, and the
// instrument at home.
export function SettingsScreen() {
  const { student } = useParams({ from: "/inside/students/$student/settings" });
  const query = useQuery(approachView(student));
  const instruments = useInstruments();
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 content-start gap-5 px-4 pb-6 lg:grid-cols-[1fr_340px]">
          <Approach key={student} view={view} />
          <aside className="space-y-4">
            <Person student={student} />
            <Books view={view} />
            <section aria-label={say("settings.taste")} className="rounded bg-raised p-4">
              <h2 className="mb-1">{say("settings.whatLikesPlay", { firstName: view.student.firstName })}</h2>
              <p className="mb-2 text-soft">{say("settings.askedWhatOpensLessonsCounts")}</p>
              <div className="flex flex-wrap gap-2">
                {(["lively", "lyrical", "familiar"] as const).map((t) => (
                  <Button
                    key={t}
                    look={view.taste === t ? "main" : "plain"}
                    aria-pressed={view.taste === t}
                    onClick={() => tell(student, { kind: "taste_asked", taste: t })}
                  >
                    {t}
                  </Button>
                ))}
              </div>
            </section>
            <Habits student={student} habits={view.habits} />
            <section aria-label={say("settings.atHome")} className="rounded bg-raised p-4">
              <h2 className="mb-2">{say("settings.atHome")}</h2>
              <Contact student={view.student} />
              <div className="mt-4">
                <HomeDays student={student} days={view.homeDays} minutes={view.homeMinutes} />
              </div>
            </section>
            <HomeForm
              key={JSON.stringify(view.student.home)}
              student={student}
              home={view.student.home}
              plays={instruments.of(view.student.instrument)}
              title={say("settings.instrumentHome")}
            />
          </aside>
        </main>
      )}
    </Shown>
  );
}

type View = Schemas["ApproachView"];

function Approach({ view }: { view: View }) {
  const [picked, pick] = useState<{ question: string; school: string }>();
  const now = view.student.approach;
  return (
    <section aria-label={say("settings.approach")} className="min-w-0">
      <h2 className="mb-1 text-large">{say("settings.approachWhereTeachersDisagree")}</h2>
      <p className="mb-2 text-soft">{say("settings.chooseSchoolSeeWhatWould", { age: view.student.age })}</p>
      <ul className="divide-y divide-faint rounded bg-raised px-4">
        {view.rows.map((row) => {
          const chosen = picked?.question === row.key ? picked.school : now[row.key];
          return (
            <li key={row.key} className="py-2">
              <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1">
                <legend className="float-left w-64 shrink-0 pt-1 font-[620]">{row.asks}</legend>
                {row.schools.map((s) => (
                  <label
                    key={s.key}
                    className={`flex cursor-pointer items-center gap-1.5 rounded border px-2 py-1 ${chosen === s.key ? "border-ink bg-faint" : "border-transparent hover:bg-faint"}`}
                  >
                    <input
                      type="radio"
                      name={row.key}
                      checked={chosen === s.key}
                      onChange={() => pick(s.key === now[row.key] ? undefined : { question: row.key, school: s.key })}
                    />
                    <span className={view.usual[row.key] === s.key ? "underline underline-offset-4" : ""}>
                      {s.name}
                    </span>
                  </label>
                ))}
              </fieldset>
              {picked?.question === row.key && (
                <Effects student={view.student.id} {...picked} done={() => pick(undefined)} />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

type Answer = Extract<Body, { kind: "approach_set" }>; // of the rows that the server lists

// Effects shows what a change would do, and saves it.
function Effects(p: { student: string; question: string; school: string; done: () => void }) {
  const query = useQuery(effectsView(p.student, p.question, p.school));
  const save = () => {
    tell(p.student, { kind: "approach_set", question: p.question, school: p.school } as Answer);
    p.done();
  };
  return (
    <div
      role="status"
      aria-label={say("settings.whatWouldChange")}
      className="mt-2 rounded border-l-4 border-ahead bg-ground p-3"
    >
      <Shown query={query}>
        {({ effects }) => (
          <ul className="space-y-0.5">
            {effects.map((r) => (
              <li key={r.says}>{r.says}</li>
            ))}
          </ul>
        )}
      </Shown>
      <div className="mt-2 flex gap-2">
        <Button look="main" onClick={save}>
          {say("settings.saveThis")}
        </Button>
        <Button look="quiet" onClick={p.done}>
          {say("settings.leaveItAsItIs")}
        </Button>
      </div>
    </div>
  );
}

function Books({ view }: { view: View }) {
  const student = view.student.id;
  return (
    <section aria-label={say("settings.books")} className="rounded bg-raised p-4">
      <h2 className="mb-1">{say("settings.booksCollections")}</h2>
      <ul>
        {view.offered.map((b) => {
          const on = view.books.includes(b);
          return (
            <li key={b}>
              <label className="flex cursor-pointer items-center gap-2 py-1">
                <input
                  type="checkbox"
                  checked={on}
                  onChange={() => tell(student, { kind: on ? "book_dropped" : "book_chosen", book: b })}
                />
                {b}
              </label>
            </li>
          );
        })}
      </ul>
      {view.offered.length === 0 && (
        <p className="text-soft">{say("settings.nothingShelfYet", { plays: view.student.plays })}</p>
      )}
    </section>
  );
}

const does: Record<string, string> = {
  keep: say("settings.keepSo"),
  "draft-again": say("settings.draftAgain"),
  "let-go": say("settings.draftBefore"),
};

// Habits lists what the teacher does to sheet after sheet, so that it may be kept so.
function Habits({ student, habits }: { student: string; habits: Schemas["Habit"][] }) {
  if (habits.length === 0) return null;
  return (
    <section aria-label={say("settings.whatChangeAgainAgain")} className="rounded bg-raised p-4">
      <h2 className="mb-2">{say("settings.whatChangeAgainAgain")}</h2>
      <ul className="space-y-1.5">
        {habits.map((h) => (
          <li key={JSON.stringify(h.says)} className="flex items-center gap-2">
            <span className="flex-1">{h.says.says}</span>
            {h.acts.map((a) => (
              <Button key={a.do} onClick={() => act(student, a.tell)}>
                {does[a.do]}
              </Button>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
