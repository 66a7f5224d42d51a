import { useRef, useState } from "react";
import { metronome, type Pulse } from "../parts/sound";
import { say } from "../words/say";

const least = 40;
const most = 160;

const bars = [1, 2, 3, 4, 6];
const parts = [
  { of: 1, name: say("family.beatsAlone") },
  { of: 2, name: say("family.withHalves") },
  { of: 3, name: say("family.withThirds") },
];

// Beat is a metronome: the first of a bar stands out, and beats may be halved or parted in
// three.
export function Beat() {
  const [pulse, setPulse] = useState<Pulse>({ bpm: 72, beats: 1, parts: 1 });
  const [on, setOn] = useState(false);
  const stop = useRef<() => void>(undefined);
  const run = (to: Pulse, go: boolean) => {
    stop.current?.();
    stop.current = go ? metronome(to) : undefined;
    setPulse(to);
    setOn(go);
  };
  const step = (by: number) => run({ ...pulse, bpm: Math.min(most, Math.max(least, pulse.bpm + by)) }, on);
  const round = "size-11 rounded border border-line bg-raised text-[20px]";
  const choice = "min-h-11 flex-1 rounded border border-line bg-raised px-2";
  return (
    <section aria-label={say("family.beat")} className="px-4 pt-6">
      <p className="flex items-center gap-2">
        <b className="mr-auto text-head">{say("family.beat")}</b>
        <button type="button" aria-label={say("family.slower")} className={round} onClick={() => step(-4)}>
          −
        </button>
        <output className="w-10 text-center text-large font-[620]">{pulse.bpm}</output>
        <button type="button" aria-label={say("family.faster")} className={round} onClick={() => step(4)}>
          +
        </button>
        <button
          type="button"
          aria-pressed={on}
          className={`min-h-11 w-20 rounded border border-ink font-[620] ${on ? "bg-ink text-raised" : "bg-raised"}`}
          onClick={() => run(pulse, !on)}
        >
          {on ? say("family.stop") : say("family.start")}
        </button>
      </p>
      <p className="mt-2 flex gap-2">
        <select
          aria-label={say("family.beatsBar")}
          className={choice}
          value={pulse.beats}
          onChange={(e) => run({ ...pulse, beats: Number(e.target.value) }, on)}
        >
          {bars.map((n) => (
            <option key={n} value={n}>
              {n === 1 ? say("family.allBeatsAlike") : say("family.firstStandsOut", { n })}
            </option>
          ))}
        </select>
        <select
          aria-label={say("family.partsBeat")}
          className={choice}
          value={pulse.parts}
          onChange={(e) => run({ ...pulse, parts: Number(e.target.value) }, on)}
        >
          {parts.map((p) => (
            <option key={p.of} value={p.of}>
              {p.name}
            </option>
          ))}
        </select>
      </p>
    </section>
  );
}
