import type { FormEvent } from "react";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { may, tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { DayPicker } from "../../parts/DayPicker";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";
import { Add } from "./Add";
import { PutOrLeave } from "./PutOrLeave";

type View = Schemas["WeekView"];
type Sheet = Schemas["Sheet"];
type Props = { student: string; view: View; sheet: Sheet };

// Lines is the teacher's hand on the sheet: a touch strikes a line, changes its count or
// hand; lines and a sentence to the family are added. Each touch can be taken
// back, and what was sent stays as it was.
export function Lines({ student, view, sheet }: Props) {
  const [adding, setAdding] = useState<"" | "line" | "word">("");
  const now = view.lines.filter((l) => l.band === "now");
  const rest = view.lines.filter((l) => l.band !== "now");
  useKeys({ a: () => setAdding("line"), w: () => setAdding("word") });
  return (
    <section aria-label={say("week.changeSheet")}>
      <h2 className="mb-1">{say("week.changeSheet")}</h2>
      <div className="mb-2 flex flex-wrap gap-2">
        {adding !== "line" && (
          <Button hint="A" onClick={() => setAdding("line")}>
            {say("week.addLine")}
          </Button>
        )}
        {adding !== "word" && (
          <Button hint="W" onClick={() => setAdding("word")}>
            {sheet.word ? say("week.changeSentence") : say("week.sentenceFamily")}
          </Button>
        )}
      </div>
      {adding === "line" && <Add student={student} view={view} sheet={sheet} end={() => setAdding("")} />}
      {adding === "word" && <Word student={student} sheet={sheet} end={() => setAdding("")} />}
      <ul className="divide-y divide-line rounded bg-raised">
        {now.map((l) => (
          <Line key={l.key} student={student} line={l} />
        ))}
        {(sheet.gone ?? []).map((g) => (
          <li key={g.fact} className="flex items-center gap-2 px-2.5 py-1.5 text-soft">
            <span className="min-w-0 flex-1 truncate line-through" title={g.says}>
              {g.title}: {g.says}
            </span>
            <button
              type="button"
              className="underline underline-offset-4"
              onClick={() => tell(student, { kind: "retracted", ref: g.fact })}
            >
              {say("week.bringBack")}
            </button>
          </li>
        ))}
      </ul>
      {rest.length > 0 && (
        <details className="mt-2 rounded bg-raised">
          <summary className="cursor-pointer px-2.5 py-1.5 font-[620]">
            {say("week.oldFriendsLaterLines", { rest: rest.length })}
          </summary>
          <ul className="divide-y divide-line">
            {rest.map((l) => (
              <Line key={l.key} student={student} line={l} />
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

const small = "grid size-8 place-items-center rounded border border-line font-[620] hover:bg-faint disabled:opacity-40";
const handNames: Record<string, string> = {
  right: say("week.rightHand"),
  left: say("week.leftHand"),
  together: say("week.bothHands"),
};

function Line({ student, line }: { student: string; line: View["lines"][number] }) {
  const [more, fewer, strike] = ["more", "fewer", "strike"].map((code) => may(student, line.acts, code));
  const hands = ["right", "left", "together"].filter((h) => h === line.hands || may(student, line.acts, h));
  return (
    <li className="px-2.5 py-1.5">
      <p className="flex items-start gap-2">
        <span className="min-w-0 flex-1">
          <b className="font-[620]">{line.title}</b>{" "}
          <span className="line-clamp-2 text-small text-soft">{line.says}</span>
        </span>
        {strike && (
          <button
            type="button"
            className={small}
            aria-label={say("week.remove", { title: line.title, says: line.says })}
            onClick={strike}
          >
            ×
          </button>
        )}
      </p>
      {line.count > 0 && more && (
        <p className="mt-1 flex flex-wrap items-center gap-1.5">
          <button
            type="button"
            className={small}
            aria-label={say("week.fewerTimes", { title: line.title })}
            disabled={!fewer}
            onClick={fewer}
          >
            −
          </button>
          <span className="min-w-12 text-center">{line.count}×</span>
          <button
            type="button"
            className={small}
            aria-label={say("week.moreTimes", { title: line.title })}
            onClick={more}
          >
            +
          </button>
          {hands.length > 1 && (
            <select
              aria-label={say("week.hand", { title: line.title })}
              value={line.hands}
              onChange={(e) => may(student, line.acts, e.target.value)?.()}
              className="ml-auto rounded border border-line bg-ground px-1 py-1"
            >
              {hands.map((h) => (
                <option key={h} value={h}>
                  {handNames[h]}
                </option>
              ))}
            </select>
          )}
        </p>
      )}
      <More student={student} line={line} />
    </li>
  );
}

// More is what is seldom touched: a line's place, whether it goes on, its bars and days.
function More({ student, line }: { student: string; line: View["lines"][number] }) {
  const [up, down, pin, unpin] = ["up", "down", "pin", "unpin"].map((code) => may(student, line.acts, code));
  const [stands, setStands] = useState<number[]>();
  const days = stands ?? line.stands;
  const [change] = line.change;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const [from, to] = [Number(form.get("from")), Number(form.get("to"))];
    if (change?.kind === "line_changed")
      tell(student, { ...change, from: from || undefined, to: to || undefined, weekdays: stands });
    setStands(undefined);
  };
  return (
    <details className="mt-1 text-small">
      <summary
        className="cursor-pointer text-soft"
        aria-label={say("week.moreOf", { title: line.title, says: line.says })}
      >
        {line.pinned ? say("week.pinnedMore") : say("week.more")}
      </summary>
      <p className="my-1 flex flex-wrap gap-1.5">
        {up && (
          <button
            type="button"
            className={small}
            aria-label={say("week.up", { title: line.title, says: line.says })}
            onClick={up}
          >
            ↑
          </button>
        )}
        {down && (
          <button
            type="button"
            className={small}
            aria-label={say("week.down", { title: line.title, says: line.says })}
            onClick={down}
          >
            ↓
          </button>
        )}
        {(pin ?? unpin) && (
          <button
            type="button"
            aria-pressed={line.pinned}
            className={`rounded border px-2 py-1 font-[620] ${line.pinned ? "border-ink bg-ink text-raised" : "border-line hover:bg-faint"}`}
            onClick={pin ?? unpin}
          >
            {line.pinned ? say("week.pinned") : say("week.pinWeeksCome")}
          </button>
        )}
      </p>
      {change && (
        <form
          onSubmit={submit}
          className="flex flex-wrap items-center gap-1.5"
          aria-label={say("week.barsDays", { title: line.title })}
        >
          <label>
            {say("week.bars")}{" "}
            <input name="from" type="number" min={0} max={10000} defaultValue={line.from || ""} className={bar} />
          </label>
          <label>
            {say("week.to")}{" "}
            <input name="to" type="number" min={0} max={10000} defaultValue={line.to || ""} className={bar} />
          </label>
          <DayPicker days={days} set={setStands} />
          <Button type="submit">{say("week.changeIt")}</Button>
        </form>
      )}
    </details>
  );
}

const bar = "w-14 rounded border border-line bg-ground px-1.5 py-1";

// Word writes the sentence to the family that stands on the sheet.
function Word({ student, sheet, end }: { student: string; sheet: Sheet; end: () => void }) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    tell(student, {
      kind: "sheet_noted",
      day: sheet.from,
      text: String(new FormData(e.currentTarget).get("text")).trim(),
    });
    end();
  };
  return (
    <form onSubmit={submit} className="mb-2 space-y-2 rounded bg-raised p-2.5" aria-label={say("week.sentenceFamily")}>
      <textarea
        // biome-ignore lint/a11y/noAutofocus: the teacher asked for this field
        autoFocus
        name="text"
        rows={3}
        maxLength={1000}
        defaultValue={sheet.word}
        aria-label={say("week.toTheFamily")}
        className="w-full rounded border border-line bg-ground px-2 py-1"
      />
      <PutOrLeave end={end} />
    </form>
  );
}
