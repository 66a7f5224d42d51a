import type { Schemas } from "../../api/client";
import { act, tell } from "../../api/outbox";
import { sentence, shortDay } from "../../parts/words";

type Suggestion = Schemas["Suggestion"];

const edges: Record<string, string> = {
  ahead: "border-l-ahead",
  now: "border-l-now",
  upkeep: "border-l-keep",
  warn: "border-l-warn",
};

const heads: Record<string, (title: string, s: Suggestion) => string> = {
  "ready-to-try": (t) => `${t} is ready to try`,
  "past-its-range": (t) => `${t} is stuck`,
  "tries-failed": (t) => `${t} is stuck`,
  "points-lost": (t) => `${t} is slipping`,
  "first-lesson": (t) => `Begin ${t}`,
  "waits-long": (t) => `${t} waits`,
  "no-goals": (t) => t,
  "pain-waits": () => "Playing waits",
  fading: (t) => `Bring back ${t}`,
  carries: (t) => `Let ${t} carry it`,
  "upkeep-share": () => "Three quarters upkeep",
  "load-kept-low": () => "The load stays low",
  "in-hand": (t) => t,
  "nothing-placed": () => "Place the first piece",
  "fill-ladder": () => "Fill the ladder",
  gap: (t) => `A gap: ${t}`,
  "head-start": (t, s) => `${s.why.args.done === "0" ? "Start" : "Go on with"}: ${t}`,
  "head-start-late": (t) => `Not ready in time: ${t}`,
  "jump-bridge": (_, s) => `A bridge to ${s.why.args.title}`,
  "jump-no-bridge": (t) => `${t} is steep`,
  "date-at-risk": (t) => `${t} may come too late`,
  "polish-for": (t) => `Polish ${t}`,
  "how-it-went": (t) => `How did ${t} go?`,
  "lane-none": (_, s) => `No ${s.why.args.lane}`,
  "lane-done": (_, s) => `No more ${s.why.args.lane}`,
  "lane-waits": (_, s) => `Nothing fits in ${s.why.args.lane} yet`,
  "after-break": () => "Back after a break",
  "before-the-book": () => "Before the first book",
  "try-first-book": () => "Try the test for book one",
};

const accepts: Record<string, string> = {
  "head-start": "Task done today",
  "waits-long": "Put it into the next lesson",
  gap: "Task done today",
  "head-start-late": "Task done today",
  "jump-bridge": "Put it in",
  "fill-ladder": "Place them",
  "polish-for": "It is polished",
  "try-first-book": "Passed: book one begins",
};

// What is done about a piece that sticks, by what it is.
const take: Record<Schemas["Remedy"]["do"], string> = {
  prerequisite: "Hear it next lesson",
  split: "Note it as a spot",
  "seat-and-hand": "Four minutes for it next lesson",
  easier: "Put it in",
  "fewer-points": "Hold that one",
  ask: "Five minutes for it next lesson",
  answer: "So it was",
};

const link = "font-[620] underline underline-offset-4";

// Suggestions say what might follow, each with its reason; the teacher accepts
// or overrules.
export function Suggestions({ view, choose }: { view: Schemas["LadderView"]; choose: (id: string) => void }) {
  return (
    <>
      {view.suggestions.length === 0 && (
        <p className="text-soft">Nothing asks for a decision. The lesson plan carries on from here.</p>
      )}
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

const headOf = (s: Suggestion) => heads[s.why.code]?.(s.title, s) ?? `Move ${s.title}`;

// Aside lists what was put off, until when, and what was dismissed; each can be had back.
function Aside({ view }: { view: Schemas["LadderView"] }) {
  if (view.aside.length === 0) return null;
  return (
    <section aria-label="Put aside">
      <h2 className="mt-3 mb-1">Put aside</h2>
      <ul className="space-y-1">
        {view.aside.map((a) => (
          <li key={a.fact} className="text-soft">
            {headOf(a.suggestion)}: {a.until ? `not before ${shortDay(a.until)}` : "dismissed"}.{" "}
            <button
              type="button"
              className={link}
              onClick={() => tell(view.student.id, { kind: "retracted", ref: a.fact })}
            >
              Undo
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
      <p className="mt-0.5 text-soft">{sentence(s.why)}</p>
      {s.remedies.some((m) => m.do === "answer") && (
        <p className="mt-1 flex flex-wrap gap-2">
          {s.remedies.map((m) => (
            <button
              key={m.why.code}
              type="button"
              className="rounded border border-line px-2.5 py-1 font-[620] hover:bg-ground"
              onClick={() => act(student.id, m.accept)}
            >
              {sentence(m.why)}
            </button>
          ))}
        </p>
      )}
      {s.remedies.some((m) => m.do !== "answer") && <p>What helps, the likeliest first:</p>}
      {s.remedies.some((m) => m.do !== "answer") && (
        <ol className="mt-1 list-decimal space-y-1 pl-5">
          {s.remedies.map((m) => (
            <li key={m.do + m.why.args.skill}>
              {sentence(m.why)}{" "}
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
            <li key={f.do}>{sentence(f.why)}</li>
          ))}
        </ul>
      )}
      <p className="mt-1 flex flex-wrap gap-x-3.5">
        {s.accept.length > 0 && (
          <button type="button" className={link} onClick={() => act(student.id, s.accept)}>
            {accepts[s.why.code] ?? "Move it"}
          </button>
        )}
        {s.rung && (
          <button type="button" className={link} onClick={() => choose(s.rung)}>
            Show
          </button>
        )}
        {s.key && (
          <>
            <button type="button" className="text-soft underline underline-offset-4" onClick={() => overrule("later")}>
              Not now
            </button>
            <button type="button" className="text-soft underline underline-offset-4" onClick={() => overrule("never")}>
              Dismiss
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
    <section aria-label="Since last week">
      <h2 className="mt-3 mb-1">Since last week</h2>
      <ul className="space-y-0.5 text-soft">
        {view.changes.map((r) => (
          <li key={sentence(r)}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}
