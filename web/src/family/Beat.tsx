import { useRef, useState } from "react";
import { metronome } from "../parts/sound";

const least = 40;
const most = 160;

// Beat is a plain metronome.
export function Beat() {
  const [bpm, setBPM] = useState(72);
  const [on, setOn] = useState(false);
  const stop = useRef<() => void>(undefined);
  const run = (to: number, go: boolean) => {
    stop.current?.();
    stop.current = go ? metronome(to) : undefined;
    setBPM(to);
    setOn(go);
  };
  const step = (by: number) => run(Math.min(most, Math.max(least, bpm + by)), on);
  const round = "size-11 rounded border border-line bg-raised text-[20px]";
  return (
    <section aria-label="Beat" className="flex items-center gap-2 px-4 pt-6">
      <h2 className="mr-auto text-head">Beat</h2>
      <button type="button" aria-label="Slower" className={round} onClick={() => step(-4)}>
        −
      </button>
      <output className="w-10 text-center text-large font-[620]">{bpm}</output>
      <button type="button" aria-label="Faster" className={round} onClick={() => step(4)}>
        +
      </button>
      <button
        type="button"
        aria-pressed={on}
        className={`min-h-11 w-20 rounded border border-ink font-[620] ${on ? "bg-ink text-raised" : "bg-raised"}`}
        onClick={() => run(bpm, !on)}
      >
        {on ? "Stop" : "Start"}
      </button>
    </section>
  );
}
