import type { Schemas } from "../../api/client";
import { act, tell } from "../../api/outbox";
import { shortDay } from "../../parts/words";
import { say } from "../../words/say";

type Suggestion = Schemas["Suggestion"];

const edges: Record<string, string> = {
  ahead: "border-l-ahead",
  now: "border-l-now",
  upkeep: "border-l-keep",
  warn: "border-l-warn",
};

const heads: Record<string, (title: string, s: Suggestion) => string> = {
  "ready-to-try": (t) => say("ladder.readyPlayThrough2", { title: t }),
  "past-its-range": (t) => say("ladder.isStuck", { title: t }),
  "tries-failed": (t) => say("ladder.isStuck", { title: t }),
  "points-lost": (t) => say("ladder.isSlipping", { title: t }),
  "first-lesson": (t) => say("ladder.start", { title: t }),
  "waits-long": (t) => say("ladder.isWaiting", { title: t }),
  "no-goals": (t) => t,
  "pain-waits": () => say("ladder.noPlayingYet"),
  fading: (t) => say("ladder.review", { title: t }),
  carries: (t) => say("ladder.useForIt", { title: t }),
  "upkeep-share": () => say("ladder.threeQuartersReview"),
  "load-kept-low": () => say("ladder.difficultyStaysLow"),
  "in-hand": (t) => t,
  "nothing-placed": () => say("ladder.addFirstPiece"),
  "fill-ladder": () => say("ladder.fillLadder"),
  gap: (t) => say("ladder.missingSkill", { title: t }),
  "head-start": (t, s) => `${s.why.args.done === "0" ? say("ladder.prepare") : say("ladder.goPreparing")}: ${t}`,
  "head-start-late": (t) => say("ladder.notReadyTime", { title: t }),
  "jump-bridge": (_, s) => say("ladder.easierStep", { title: s.why.args.title }),
  "jump-no-bridge": (t) => say("ladder.bigStep", { title: t }),
  "date-at-risk": (t) => say("ladder.mayComeTooLate", { title: t }),
  "polish-for": (t) => say("ladder.makePerformanceReady", { title: t }),
  "how-it-went": (t) => say("ladder.howDidGo", { title: t }),
  "lane-none": (_, s) => say("ladder.no", { lane: s.why.args.lane }),
  "lane-done": (_, s) => say("ladder.noMore", { lane: s.why.args.lane }),
  "lane-waits": (_, s) => say("ladder.nothingFitsYet", { lane: s.why.args.lane }),
  "after-break": () => say("ladder.backAfterBreak"),
  "before-the-book": () => say("ladder.beforeFirstBook"),
  "try-first-book": () => say("ladder.tryTestBookOne"),
};

const accepts: Record<string, string> = {
  "head-start": say("ladder.doneToday"),
  "waits-long": say("ladder.addNextLesson"),
  gap: say("ladder.doneToday"),
  "head-start-late": say("ladder.doneToday"),
  "jump-bridge": say("ladder.addIt"),
  "fill-ladder": say("ladder.addThem"),
  "polish-for": say("ladder.performanceReady"),
  "try-first-book": say("ladder.passedStartBookOne"),
};

// What is done about a piece that sticks, by what it is.
const take: Record<Schemas["Remedy"]["do"], string> = {
  prerequisite: say("ladder.hearNextLesson"),
  split: say("ladder.noteTrickySpot"),
  "seat-and-hand": say("ladder.fourMinutesNextLesson"),
  easier: say("ladder.addIt"),
  "fewer-points": say("ladder.chooseGoal"),
  ask: say("ladder.fiveMinutesNextLesson"),
  answer: say("ladder.soWas"),
};

const link = "font-[620] underline underline-offset-4";

// Suggestions say what might follow, each with its reason; the teacher accepts
// or overrules.
export function Suggestions({ view, choose }: { view: Schemas["LadderView"]; choose: (id: string) => void }) {
  return (
    <>
      {view.suggestions.length === 0 && <p className="text-soft">{say("ladder.nothingAsksDecisionLessonPlan")}</p>}
      <ul className="space-y-2.5">
        {view.suggestions.map((s) => (
          <Card key={`${s.key}${s.why.code}${s.rung}`} suggestion={s} student={view.student} choose={choose} />
        ))}
      </ul>
      <Aside view={view} />
      <Changes view={view} />
    </>
  );
}

const headOf = (s: Suggestion) => heads[s.why.code]?.(s.title, s) ?? say("ladder.move", { title: s.title });

// Aside lists what was put off, until when, and what was dismissed; each can be had back.
function Aside({ view }: { view: Schemas["LadderView"] }) {
  if (view.aside.length === 0) return null;
  return (
    <section aria-label={say("ladder.putAside")}>
      <h2 className="mt-3 mb-1">{say("ladder.putAside")}</h2>
      <ul className="space-y-1">
        {view.aside.map((a) => (
          <li key={a.fact} className="text-soft">
            {headOf(a.suggestion)}:{" "}
            {a.until ? say("ladder.notBefore", { day: shortDay(a.until) }) : say("ladder.dismissed")}.{" "}
            <button
              type="button"
              className={link}
              onClick={() => tell(view.student.id, { kind: "retracted", ref: a.fact })}
            >
              {say("ladder.undo")}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

type CardProps = { suggestion: Suggestion; student: Schemas["StudentCard"]; choose: (id: string) => void };

function Card({ suggestion: s, student, choose }: CardProps) {
  const overrule = (until: "later" | "never") => tell(student.id, { kind: "overruled", suggestion: s.key, until });
  const title = headOf(s);
  return (
    <li className={`rounded border border-l-4 border-line bg-raised p-3 ${edges[s.band]}`}>
      <b className="font-[650]">{title}</b>
      <p className="mt-0.5 text-soft">{s.why.says}</p>
      {s.remedies.some((m) => m.do === "answer") && (
        <p className="mt-1 flex flex-wrap gap-2">
          {s.remedies.map((m) => (
            <button
              key={m.why.code}
              type="button"
              className="rounded border border-line px-2.5 py-1 font-[620] hover:bg-ground"
              onClick={() => act(student.id, m.accept)}
            >
              {m.why.says}
            </button>
          ))}
        </p>
      )}
      {s.remedies.some((m) => m.do !== "answer") && <p>{say("ladder.whatHelpsLikeliestFirst")}</p>}
      {s.remedies.some((m) => m.do !== "answer") && (
        <ol className="mt-1 list-decimal space-y-1 pl-5">
          {s.remedies.map((m) => (
            <li key={m.do + m.why.args.skill}>
              {m.why.says}{" "}
              {m.accept.length > 0 && (
                <button type="button" className={link} onClick={() => act(student.id, m.accept)}>
                  {take[m.do]}
                </button>
              )}
            </li>
          ))}
        </ol>
      )}
      {s.fixes.length > 0 && (
        <ul className="mt-1 list-disc space-y-0.5 pl-5">
          {s.fixes.map((f) => (
            <li key={f.do}>{f.why.says}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex flex-wrap gap-x-3.5">
        {s.accept.length > 0 && (
          <button type="button" className={link} onClick={() => act(student.id, s.accept)}>
            {accepts[s.why.code] ?? say("ladder.moveIt")}
          </button>
        )}
        {s.rung && (
          <button type="button" className={link} onClick={() => choose(s.rung)}>
            {say("ladder.show")}
          </button>
        )}
        {s.key && (
          <>
            <button type="button" className="text-soft underline underline-offset-4" onClick={() => overrule("later")}>
              {say("ladder.notNow")}
            </button>
            <button type="button" className="text-soft underline underline-offset-4" onClick={() => overrule("never")}>
              {say("ladder.dismiss")}
            </button>
          </>
        )}
      </p>
    </li>
  );
}

// Changes tells what moved since a week ago.
function Changes({ view }: { view: Schemas["LadderView"] }) {
  if (view.changes.length === 0) return null;
  return (
    <section aria-label={say("ladder.sinceLastWeek")}>
      <h2 className="mt-3 mb-1">{say("ladder.sinceLastWeek")}</h2>
      <ul className="space-y-0.5 text-soft">
        {view.changes.map((r) => (
          <li key={r.says}>{r.says}</li>
        ))}
      </ul>
    </section>
  );
}
