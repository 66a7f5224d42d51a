import { useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { Listen } from "./Listen";
import { Notes } from "./Notes";
import { Turn } from "./Turn";

type Props = { token: string; task: Schemas["Task"]; heard: boolean; along: boolean };

// Music is what can be heard and seen of a line, each behind a touch.
export function Music({ token, task, heard, along }: Props) {
  const [hears, setHears] = useState(false);
  const [sees, setSees] = useState(false);
  const [now, setNow] = useState<string[]>([]);
  const cards = task.cards ?? [];
  if (!heard && cards.length === 0) return null;
  const seen = cards.length > 0 || !task.listen;
  const look = (on: boolean) =>
    `min-h-11 rounded border px-4 font-[620] ${on ? "border-ink bg-ink text-raised" : "border-line"}`;
  return (
    <>
      {!sees && cards.length > 0 && (
        <ul className="space-y-2 px-4 pb-3 pl-[60px]">
          {cards.map((c) => (
            <li key={c.id}>
              <b className="block font-[620] first-letter:uppercase">{c.shown}</b>
              <Turn card={c} />
            </li>
          ))}
        </ul>
      )}
      <p className="mb-2 ml-14 flex gap-2">
        {heard && (
          <button type="button" aria-pressed={hears} className={look(hears)} onClick={() => setHears(!hears)}>
            {say("family.hearIt")}
            <span className="sr-only">: {task.title}</span>
          </button>
        )}
        {seen && (
          <button type="button" aria-pressed={sees} className={look(sees)} onClick={() => setSees(!sees)}>
            {cards.length > 0 ? say("family.seeCards") : say("family.seeNotes")}
            <span className="sr-only">: {task.title}</span>
          </button>
        )}
      </p>
      {sees && <Notes token={token} task={task} now={now} />}
      {hears && <Listen token={token} task={task} along={along} onNow={setNow} />}
    </>
  );
}
