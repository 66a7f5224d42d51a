import { useState } from "react";
import { tell } from "../../api/outbox";
import { Button, Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";
import { told } from "./told";
import type { LessonView } from "./view";

const keys = ["q", "r", "v"];

// Seen names what the teacher sees at the instrument, one touch each, and then
// what to try and why: one at a time.
export function Seen({ view }: { view: LessonView }) {
  const [all, setAll] = useState(false);
  const student = view.student.id;
  const see = (key: string) => () => tell(student, { kind: "seen", fault: key });
  const first = view.faults.slice(0, 3);
  useKeys(Object.fromEntries(first.map((f, i) => [keys[i] ?? "", see(f.key)])));
  const last = told(view, "seen").at(-1);
  const fault = last && view.faults.find((f) => f.key === last.fault);
  return (
    <section aria-label={say("lesson.techniqueNotes")}>
      <h2 className="mb-1.5">{say("lesson.techniqueNotes")}</h2>
      <ul className="divide-y divide-faint rounded bg-raised px-3">
        {(all ? view.faults : first).map((f, i) => (
          <li key={f.key}>
            <button
              type="button"
              onClick={see(f.key)}
              aria-pressed={f === fault}
              className="flex w-full items-center gap-2.5 py-1.5 text-left hover:bg-faint"
            >
              {i < keys.length && <Key>{keys[i]?.toUpperCase()}</Key>}
              <span className="flex-1">{f.seen}</span>
              {f.times > 0 && <span className="text-small text-soft">{say("lesson.lately", { times: f.times })}</span>}
            </button>
          </li>
        ))}
        <li>
          <button type="button" className="py-1.5 text-soft underline underline-offset-4" onClick={() => setAll(!all)}>
            {all ? say("lesson.fewer") : say("lesson.all", { faults: view.faults.length })}
          </button>
        </li>
      </ul>
      {fault && (
        <p role="status" className="mt-1.5 rounded border-l-4 border-now bg-raised px-3 py-2">
          <b className="font-[620]">{say("lesson.tryThis")}</b> {fault.try}.{" "}
          <span className="text-soft">{say("lesson.whyMatters", { why: fault.why })}</span>
          {fault.hands && ` ${say("lesson.askBeforeTouchingHand")}`}
        </p>
      )}
    </section>
  );
}

const sides = [
  { key: "right", name: say("lesson.right") },
  { key: "left", name: say("lesson.left2") },
  { key: "both", name: say("lesson.both") },
] as const;

// Pain is told in one touch: playing stops on that side, and the app says whom to
// see. It makes no diagnosis.
export function Pain({ view }: { view: LessonView }) {
  const student = view.student.id;
  if (view.ache) {
    return (
      <section aria-label={say("lesson.pain")} className="rounded border-l-4 border-warn bg-raised p-3">
        <p>
          <b className="font-[620] text-warn">
            {say("lesson.painTold", { side: view.ache.side })}
            {view.ache.where && `, ${view.ache.where}`}.
          </b>{" "}
          {say("lesson.noPlayingSideUntilLicensed")}
        </p>
        <Button className="mt-2" onClick={() => tell(student, { kind: "pain_cleared" })}>
          {say("lesson.clinicianHasCleared")}
        </Button>
      </section>
    );
  }
  return (
    <fieldset className="flex flex-wrap items-center gap-2">
      <legend className="float-left mr-2 py-1.5 font-[650]">{say("lesson.painNumbnessTingling")}</legend>
      {sides.map((s) => (
        <button
          key={s.key}
          type="button"
          aria-label={say("lesson.pain2", { side: s.name.toLowerCase() })}
          className="min-h-6 rounded border border-line bg-raised px-2.5 py-1 hover:bg-faint"
          onClick={() => tell(student, { kind: "pained", side: s.key })}
        >
          {s.name}
        </button>
      ))}
    </fieldset>
  );
}

const moods = ["bright", "calm", "restless", "tired", "low"] as const;

const phrases = [
  say("lesson.sangFirst"),
  "rushed",
  say("lesson.slowSecure"),
  say("lesson.needsPage"),
  say("lesson.handsFineApart"),
  say("lesson.askedWhy"),
];

// Quick are notes of one touch: the mood, and phrases that come up again and
// again.
export function Quick({ view }: { view: LessonView }) {
  const student = view.student.id;
  const mood = told(view, "mood_seen").at(-1)?.mood;
  const chip = (on: boolean) =>
    `min-h-6 rounded border px-2.5 py-1 ${on ? "border-keep bg-keep-tint" : "border-line bg-raised hover:bg-faint"}`;
  return (
    <section aria-label={say("lesson.quickNotes")} className="space-y-2">
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1.5 font-[650]">{say("lesson.mood")}</legend>
        {moods.map((m) => (
          <button
            key={m}
            type="button"
            aria-pressed={mood === m}
            className={chip(mood === m)}
            onClick={() => tell(student, { kind: "mood_seen", mood: m })}
          >
            {m}
          </button>
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-1.5">
        <legend className="mb-1.5 font-[650]">{say("lesson.quickNotes")}</legend>
        {phrases.map((p) => (
          <button
            key={p}
            type="button"
            className={chip(false)}
            onClick={() => tell(student, { kind: "noted", text: p })}
          >
            {p}
          </button>
        ))}
      </fieldset>
    </section>
  );
}
