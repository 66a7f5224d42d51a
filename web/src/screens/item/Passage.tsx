import { useState } from "react";
import type { Schemas } from "../../api/client";
import { PlayIn } from "../../parts/PlayIn";
import { say } from "../../words/say";

type Props = {
  item: Schemas["Item"];
  read: Schemas["ReadingView"];
  student?: Schemas["StudentCard"];
  rung?: string;
};

// Passage chooses which bars of a piece, and with which hand, are played in.
export function Passage({ item, read, student, rung }: Props) {
  const [bars, setBars] = useState<[number, number]>([1, read.bars.length]);
  const [hand, setHand] = useState("");
  const [from, to] = bars;
  const within = read.sounds
    .filter((s) => s.onset >= (read.bars[from - 1] ?? 0) && s.onset < (read.bars[to] ?? Number.POSITIVE_INFINITY))
    .toSorted((a, b) => a.onset - b.onset);
  const bar = (name: string, value: number, set: (n: number) => void) => (
    <label className="flex items-center gap-1.5">
      {name}
      <input
        type="number"
        min={1}
        max={read.bars.length}
        value={value}
        onChange={(e) => set(Math.min(Math.max(1, Number(e.target.value)), read.bars.length))}
        className="w-16 rounded border border-line bg-raised px-2 py-1"
      />
    </label>
  );
  return (
    <div className="mt-4 print:hidden">
      <p className="flex flex-wrap items-center gap-3">
        {bar(say("item.bars"), from, (n) => setBars([n, Math.max(n, to)]))}
        {bar("to", to, (n) => setBars([Math.min(n, from), n]))}
        {read.hands.length > 1 && (
          <label className="flex items-center gap-1.5">
            {say("item.with")}
            <select
              value={hand}
              onChange={(e) => setHand(e.target.value)}
              className="rounded border border-line bg-raised px-2 py-1"
            >
              <option value="">{say("item.bothHands")}</option>
              {read.hands.map((h) => (
                <option key={h} value={h}>
                  {say("item.theHand", { hand: h })}
                </option>
              ))}
            </select>
          </label>
        )}
      </p>
      <PlayIn
        key={`${from} ${to} ${hand}`}
        ask={{
          item: item.id,
          instrument: item.instrument,
          fromNote: within[0]?.id,
          toNote: within.at(-1)?.id,
          ...((hand === "left" || hand === "right") && { hand }),
          ...(rung && { rung }),
        }}
        student={student}
        beat={Math.round(60000 / read.qpm)}
      />
    </div>
  );
}
