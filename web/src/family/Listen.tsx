import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { hearing, type Passage, play, speeds } from "../parts/sound";
import { modelView } from "./view";

type Props = { token: string; task: Schemas["Task"] };

// Listen plays what a task asks for, counted in, at three speeds. Its notes are
// fetched when it is opened.
export function Listen({ token, task }: Props) {
  const [open, setOpen] = useState(false);
  const [sounding, setSounding] = useState("");
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []); // another day ends the sound
  const query = useQuery({ ...modelView(token, task.rung), enabled: open });
  const hear = (speed: (typeof speeds)[number]) => {
    stop.current?.();
    if (sounding === speed.name || !query.data) return;
    setSounding(speed.name);
    stop.current = play(
      query.data.sounds,
      hearing(query.data, passage(task, query.data), speed.of),
      false,
      () => undefined,
      () => setSounding(""),
    );
  };
  if (!open) {
    return (
      <button
        type="button"
        className="mb-2 ml-14 min-h-11 rounded border border-line px-4 font-[620]"
        onClick={() => setOpen(true)}
      >
        Hear it
        <span className="sr-only">: {task.title}</span>
      </button>
    );
  }
  return (
    <fieldset aria-label={`Hear ${task.title}`} className="mb-2 ml-14 flex flex-wrap gap-2 pr-4">
      {speeds.map((s) => (
        <button
          type="button"
          key={s.name}
          disabled={!query.data}
          aria-pressed={sounding === s.name}
          className={`min-h-11 rounded border px-4 font-[620] disabled:opacity-45 ${sounding === s.name ? "border-ink bg-ink text-raised" : "border-line"}`}
          onClick={() => hear(s)}
        >
          {sounding === s.name ? "stop" : s.name}
        </button>
      ))}
      {query.error && (
        <p role="alert" className="text-soft">
          It cannot be fetched just now: try again with a connection.
        </p>
      )}
    </fieldset>
  );
}

// passage is the chunk of a task, or the whole piece.
function passage(task: Schemas["Task"], model: Schemas["Model"]): Passage {
  if (task.start && task.from > 0 && !task.spot)
    return { fromId: task.start.from, toId: task.start.to, hand: task.start.hand };
  const inTime = [...model.sounds].sort((a, b) => a.onset - b.onset);
  return { fromId: inTime[0]?.id ?? "", toId: inTime.at(-1)?.id ?? "", hand: "both" };
}
