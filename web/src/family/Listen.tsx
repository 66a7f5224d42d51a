import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { hearing, type Passage, play, speeds } from "../parts/sound";
import { say } from "../words/say";
import { modelView } from "./view";

type Props = { token: string; task: Schemas["Task"]; along: boolean; onNow: (ids: string[]) => void };

// Listen plays what a task asks for, counted in, at three speeds, once or again and again.
// Where the school plays alone first, the times alone are counted before.
export function Listen({ token, task, along, onNow }: Props) {
  const [again, setAgain] = useState(false);
  const [alone, setAlone] = useState(0);
  const first = !along && task.band === "now" && task.count > 1 && !task.listen;
  const [sounding, setSounding] = useState("");
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []); // another day ends the sound
  const query = useQuery(modelView(token, task.key));
  const hear = (speed: (typeof speeds)[number]) => {
    stop.current?.();
    if (sounding === speed.name || !query.data) return;
    setSounding(speed.name);
    stop.current = play(query.data.sounds, hearing(query.data, passage(task, query.data), speed.of), again, onNow, () =>
      setSounding(""),
    );
  };
  return (
    <fieldset
      aria-label={say("family.hear", { title: task.title })}
      className="mb-2 ml-14 flex w-full flex-wrap gap-2 pr-4"
    >
      {speeds.map((s) => (
        <button
          type="button"
          key={s.name}
          disabled={!query.data}
          aria-pressed={sounding === s.name}
          className={`min-h-11 rounded border px-4 font-[620] disabled:opacity-45 ${sounding === s.name ? "border-ink bg-ink text-raised" : "border-line"}`}
          onClick={() => hear(s)}
        >
          {sounding === s.name ? say("family.stopIt") : s.name}
        </button>
      ))}
      <button
        type="button"
        aria-pressed={again}
        className={`min-h-11 rounded border px-4 font-[620] ${again ? "border-ink bg-ink text-raised" : "border-line"}`}
        onClick={() => setAgain(!again)}
      >
        {say("family.againAgain")}
      </button>
      {first && (
        <p className="flex w-full flex-wrap items-center gap-2">
          {alone < task.count ? (
            <>
              {say("family.aloneFirst", { alone, count: task.count })}
              <button
                type="button"
                className="min-h-11 rounded border border-line px-4 font-[620]"
                onClick={() => setAlone(alone + 1)}
              >
                {say("family.played")}
              </button>
            </>
          ) : (
            say("family.playedAloneNowAlongWith")
          )}
        </p>
      )}
      {query.error && (
        <p role="alert" className="text-soft">
          {say("family.cannotFetchedJustNowTry")}
        </p>
      )}
    </fieldset>
  );
}

// passage is the chunk of a task, its bars, or the whole piece.
function passage(task: Schemas["Task"], model: Schemas["Model"]): Passage {
  if (task.start && task.from > 0 && !task.spot)
    return { fromId: task.start.from, toId: task.start.to, hand: task.start.hand };
  const from = task.from > 0 ? model.bars[task.from - 1] : undefined;
  const to = model.bars[task.to] ?? Number.POSITIVE_INFINITY;
  const within = model.sounds.filter((s) => from === undefined || (s.onset >= from && s.onset < to));
  const inTime = within.sort((a, b) => a.onset - b.onset);
  return { fromId: inTime[0]?.id ?? "", toId: inTime.at(-1)?.id ?? "", hand: "both" };
}
