import { type FormEvent, useId, useState } from "react";
import type { Schemas } from "../api/client";
import { type Body, tell } from "../api/outbox";
import { felts } from "../parts/felts";
import { say } from "../words/say";
import type { FamilyView } from "./view";

type Props = { view: FamilyView; day: Schemas["Day"] };

const felt = ["fun", "fine", "hard", "dull"] as const;
type Felt = Extract<Body, { kind: "practised" }>["felt"];

// Afterwards is what a family may tell of a day: minutes, how it felt, what
// tripped, a question. None of it must be filled in.
export function Afterwards({ view, day }: Props) {
  const of = view.days.findLast((d) => d.day === day.date);
  const report = (minutes: number, feel: Felt) => {
    if (of) tell(view.student, { kind: "retracted", ref: of.id });
    tell(view.student, { kind: "practised", day: day.date, minutes, felt: feel });
  };
  const pieces = new Map(day.tasks.filter((t) => t.band === "now").map((t) => [t.rung, t.title]));
  return (
    <section className="space-y-4 px-4 pt-6">
      <h2 className="text-head">{say("family.afterwardsIfLike")}</h2>
      <fieldset>
        <legend className="mb-1 font-[620]">{say("family.howLong")}</legend>
        <div className="flex flex-wrap gap-2">
          {view.minutes.map((m) => (
            <Chip key={m} on={of?.minutes === m} onTouch={() => report(m, of?.felt || undefined)}>
              {say("family.min", { m })}
            </Chip>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-[620]">{say("family.howDidFeel")}</legend>
        <div className="flex flex-wrap gap-2">
          {felt.map((f) => (
            <Chip key={f} on={of?.felt === f} onTouch={() => report(of?.minutes ?? 0, f)}>
              {felts[f]}
            </Chip>
          ))}
        </div>
      </fieldset>
      {pieces.size > 0 && (
        <Line
          label={say("family.whereDidTrip")}
          name="trip"
          done={say("family.tell")}
          hint={say("family.turnBar5")}
          pieces={pieces}
          onSend={(where, rung) => tell(view.student, { kind: "tripped", rung, day: day.date, where })}
        />
      )}
      <Line
        label={say("family.questionLesson")}
        name="question"
        done={say("family.ask")}
        onSend={(text) => tell(view.student, { kind: "question_asked", text })}
      />
      {view.questions.length > 0 && (
        <ul aria-label={say("family.questionsWaitLesson")}>
          {view.questions.map((q) => (
            <li key={q} className="border-l-2 border-ink pl-3">
              {q}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Chip({ on, onTouch, children }: { on: boolean; onTouch: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={`min-h-11 rounded border px-4 ${on ? "border-ink bg-ink text-raised" : "border-line bg-raised"}`}
      onClick={onTouch}
    >
      {children}
    </button>
  );
}

type LineProps = {
  label: string;
  name: string;
  done: string;
  hint?: string;
  pieces?: Map<string, string>;
  onSend: (text: string, rung: string) => void;
};

// Line is one line to write, and the piece it is about where that matters.
function Line({ label, name, done, hint, pieces, onSend }: LineProps) {
  const id = useId();
  const [text, setText] = useState("");
  const [rung, setRung] = useState(pieces?.keys().next().value ?? "");
  const [sent, setSent] = useState("");
  const send = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    onSend(text.trim(), rung);
    setSent(text.trim());
    setText("");
  };
  return (
    <form onSubmit={send}>
      <label htmlFor={id} className="mb-1 block font-[620]">
        {label}
      </label>
      {pieces && pieces.size > 1 && (
        <select
          aria-label={say("family.whichPiece")}
          className="mb-2 min-h-11 w-full rounded border border-line bg-raised px-2"
          value={rung}
          onChange={(e) => setRung(e.target.value)}
        >
          {[...pieces].map(([key, title]) => (
            <option key={key} value={key}>
              {title}
            </option>
          ))}
        </select>
      )}
      <div className="flex gap-2">
        <input
          id={id}
          name={name}
          className="min-h-11 min-w-0 flex-1 rounded border border-line bg-raised px-3"
          placeholder={hint}
          maxLength={300}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <button type="submit" className="min-h-11 rounded border border-ink px-4 font-[620]">
          {done}
        </button>
      </div>
      <p aria-live="polite" className="text-soft">
        {sent && say("family.notedLesson", { sent })}
      </p>
    </form>
  );
}
