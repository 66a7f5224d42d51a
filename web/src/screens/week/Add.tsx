import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { addableView } from "../../api/views";
import { DayPicker } from "../../parts/DayPicker";
import { say } from "../../words/say";
import { PutOrLeave } from "./PutOrLeave";

type Props = { student: string; view: Schemas["WeekView"]; sheet: Schemas["Sheet"]; end: () => void };
type Addable = Schemas["Addable"];

// Add puts a line on the sheet: something of the shelf, an exercise, cards or a game, one's
// own words, or both; on which days, how long.
export function Add({ student, view, sheet, end }: Props) {
  const [days, setDays] = useState<number[]>([]);
  const [chosen, choose] = useState<Addable>();
  const pieces = [
    ...new Map(sheet.days.flatMap((d) => d.tasks.map((t) => [t.rung, t.title] as const))).entries(),
  ].filter(([rung, title]) => rung && view.lines.some((l) => l.title === title));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = String(form.get("text")).trim() || undefined;
    const minutes = Number(form.get("minutes")) || undefined;
    const weekdays = days.length > 0 ? days : undefined;
    const [offered] = chosen?.tell ?? [];
    if (offered?.kind === "line_added") tell(student, { ...offered, text, minutes, weekdays });
    else if (text)
      tell(student, {
        kind: "line_added",
        day: sheet.from,
        text,
        rung: String(form.get("rung")) || undefined,
        minutes,
        weekdays,
      });
    end();
  };
  return (
    <form onSubmit={submit} className="mb-2 space-y-2 rounded bg-raised p-2.5" aria-label={say("week.lineAdd")}>
      <textarea
        // biome-ignore lint/a11y/noAutofocus: the teacher asked for this field
        autoFocus
        name="text"
        rows={2}
        maxLength={500}
        aria-label={say("week.whatDo")}
        placeholder={chosen ? say("week.wordsYoursIfLike") : say("week.drawTwoAnimalsPiece")}
        className="w-full rounded border border-line bg-ground px-2 py-1 placeholder:text-soft"
      />
      {chosen ? (
        <p className="flex items-center gap-2">
          <b className="min-w-0 flex-1 font-[620]">{chosen.title}</b>
          <button type="button" className="underline underline-offset-4" onClick={() => choose(undefined)}>
            {say("week.notThis")}
          </button>
        </p>
      ) : (
        <Find student={student} choose={choose} />
      )}
      <div className="flex flex-wrap gap-2">
        {!chosen && (
          <select
            name="rung"
            aria-label={say("week.about")}
            className="min-w-0 flex-1 rounded border border-line bg-ground px-1 py-1"
          >
            <option value="">{say("week.aboutNothingSheet")}</option>
            {pieces.map(([rung, title]) => (
              <option key={rung} value={rung}>
                {title}
              </option>
            ))}
          </select>
        )}
        <input
          name="minutes"
          type="number"
          min={0}
          max={120}
          aria-label={say("week.minutesDay")}
          placeholder={say("week.min")}
          className="w-16 rounded border border-line bg-ground px-2 py-1"
        />
      </div>
      <fieldset>
        <legend className="text-small text-soft">{say("week.daysNoneEveryDay")}</legend>
        <DayPicker days={days} set={setDays} />
      </fieldset>
      <PutOrLeave end={end} />
    </form>
  );
}

const kinds: Record<Addable["kind"], string> = {
  piece: say("week.piece"),
  exercise: say("week.exercise"),
  cards: say("week.flashcards"),
  game: say("week.game"),
};

// Find seeks what may be added by words of its title.
function Find({ student, choose }: { student: string; choose: (a: Addable) => void }) {
  const [sought, seek] = useState("");
  const query = useQuery({
    ...addableView(student, sought),
    enabled: sought.trim().length > 1,
    placeholderData: keepPreviousData,
  });
  const found = sought.trim().length > 1 ? (query.data?.found ?? []) : [];
  return (
    <div>
      <input
        name="find"
        type="search"
        value={sought}
        maxLength={100}
        onChange={(e) => seek(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== "Enter") return;
          e.preventDefault();
          if (found[0]) choose(found[0]);
        }}
        aria-label={say("week.fromShelfExerciseCardsGame")}
        placeholder={say("week.pieceScaleCardDeckGame")}
        className="w-full rounded border border-line bg-ground px-2 py-1 placeholder:text-soft"
      />
      {found.length > 0 && (
        <ul className="mt-1 max-h-56 overflow-y-auto rounded border border-line">
          {found.map((a) => (
            <li key={JSON.stringify(a.tell)}>
              <button
                type="button"
                className="flex w-full items-baseline gap-2 px-2 py-1 text-left hover:bg-faint"
                onClick={() => choose(a)}
              >
                <span className="min-w-0 flex-1">{a.title}</span>
                <span className="text-small text-soft">{a.from || kinds[a.kind]}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {query.isSuccess && sought.trim().length > 1 && found.length === 0 && (
        <p className="text-small text-soft">{say("week.nothingNamePutOwnWords")}</p>
      )}
    </div>
  );
}
