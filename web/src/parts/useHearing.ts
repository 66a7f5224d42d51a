import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { hearing, type Passage, play } from "./sound";

// useHearing plays passages of a model, one at a time: what sounds stands out on the
// page, and leaving the page ends it.
export function useHearing(model: Schemas["Model"], also?: (ids: string[]) => void) {
  const [playing, setPlaying] = useState(false);
  const end = useRef<() => void>(undefined);
  useEffect(() => () => end.current?.(), []);
  const sounding = (ids: string[]) => {
    for (const el of document.querySelectorAll(".score .sounding")) el.classList.remove("sounding");
    for (const id of ids) document.getElementById(id)?.classList.add("sounding");
    also?.(ids);
  };
  const stop = () => end.current?.();
  const hear = (p: Passage, speed: number, loop = false) => {
    stop();
    setPlaying(true);
    end.current = play(model.sounds, hearing(model, p, speed), loop, sounding, () => setPlaying(false));
  };
  return { playing, hear, stop };
}
