import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { speeds } from "../../parts/sound";
import { useHearing } from "../../parts/useHearing";
import { say } from "../../words/say";
import { Hand } from "./Hand";

type Read = Schemas["ReadingView"];
type Chunk = Schemas["Chunk"];

const hands: Record<string, string> = {
  right: say("item.rightHand"),
  left: say("item.leftHand"),
  both: say("item.handsTogether"),
};

// leaves lists the smallest chunks in order.
const leaves = (c: Chunk): Chunk[] => (c.parts.length === 0 ? [c] : c.parts.flatMap(leaves));

// Chunks shows each hand's stretches as joined brackets; a stretch is heard with
// a count-in and shown under the hand.
export function Chunks({ read }: { read: Read }) {
  return read.chunks.length > 0 ? <Trees read={read} /> : null;
}

function Trees({ read }: { read: Read }) {
  const [hand, setHand] = useState(0);
  const [picked, pick] = useState<Chunk>();
  const [speed, setSpeed] = useState(0);
  const [loop, setLoop] = useState(false);
  const [now, setNow] = useState<string[]>([]);
  const { playing, hear: heard, stop } = useHearing(read, setNow);
  const tree = read.chunks[hand % read.chunks.length] as Chunk;
  const chosen = picked ?? leaves(tree)[0] ?? tree;
  const staves = chosen.hand === "both" ? read.hands.map((_, i) => i) : [read.hands.indexOf(chosen.hand)];

  const hear = (c: Chunk) => heard(c, speeds[speed]?.of ?? 1, loop);
  const choose = (c: Chunk) => {
    pick(c);
    hear(c);
  };
  const step = (by: number) => {
    const all = leaves(tree);
    const i = all.findIndex((c) => c.fromId === chosen.fromId);
    const next = all[Math.min(Math.max(i + by, 0), all.length - 1)];
    if (next) choose(next);
  };
  const toggle = () => (playing ? stop() : hear(chosen));
  const turn = () => {
    stop();
    setHand((hand + 1) % read.chunks.length);
    pick(undefined);
  };
  useKeys({
    " ": toggle,
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    "1": () => setSpeed(0),
    "2": () => setSpeed(1),
    "3": () => setSpeed(2),
    r: () => setLoop(!loop),
    h: turn,
  });
  const numbers = new Map(leaves(tree).map((c, i) => [c, i + 1]));
  const chip = (on: boolean) =>
    `inline-flex items-center gap-1.5 rounded border px-2.5 py-1 font-[580] ${on ? "border-ink bg-ink text-raised" : "border-line bg-ground hover:bg-faint"}`;

  return (
    <section aria-label={say("item.chunks")} className="mt-3 rounded bg-raised px-4 py-3 print:hidden">
      <div className="mb-2 flex flex-wrap items-center gap-1.5">
        <h2 className="mr-2">{say("item.chunks")}</h2>
        {read.chunks.length > 1 && (
          <button type="button" className={chip(false)} onClick={turn}>
            {hands[tree.hand]} <Key>H</Key>
          </button>
        )}
        {speeds.map((s, i) => (
          <button
            key={s.name}
            type="button"
            aria-pressed={i === speed}
            className={chip(i === speed)}
            onClick={() => setSpeed(i)}
          >
            {s.name} <Key>{i + 1}</Key>
          </button>
        ))}
        <button type="button" aria-pressed={loop} className={chip(loop)} onClick={() => setLoop(!loop)}>
          {say("item.againAgain")} <Key>R</Key>
        </button>
        <Button look="main" className="ml-auto py-1" hint={say("parts.spaceKey")} onClick={toggle}>
          {playing ? say("item.stop") : say("item.hearIt")}
        </Button>
      </div>
      <div className="overflow-x-auto pb-1">
        <div className="min-w-fit">
          <Joined chunk={tree} chosen={chosen} numbers={numbers} choose={choose} />
        </div>
      </div>
      <Hand read={read} chunk={chosen} staves={staves} now={now} />
    </section>
  );
}

// Joined draws a chunk as a bracket over its parts.
function Joined({
  chunk,
  chosen,
  numbers,
  choose,
}: {
  chunk: Chunk;
  chosen: Chunk;
  numbers: Map<Chunk, number>;
  choose: (c: Chunk) => void;
}) {
  const on = chunk.fromId === chosen.fromId && chunk.toId === chosen.toId;
  const place =
    chunk.from.bar === chunk.to.bar
      ? say("item.bar3", { bar: chunk.from.bar })
      : say("item.barsTo", { bar: chunk.from.bar, bar2: chunk.to.bar });
  if (chunk.parts.length === 0) {
    return (
      <button
        type="button"
        aria-pressed={on}
        onClick={() => choose(chunk)}
        className={`min-w-11 flex-1 rounded border px-1.5 py-1 text-center leading-tight ${on ? "border-ahead bg-ahead text-raised" : "border-line bg-ground hover:bg-faint"}`}
      >
        <b className="block font-[650]">
          <span className="sr-only">{say("item.chunk")} </span>
          {numbers.get(chunk)}
        </b>
        <span className={`text-small whitespace-nowrap ${on ? "" : "text-soft"}`}>
          {chunk.from.bar === chunk.to.bar
            ? say("item.bar3", { bar: chunk.from.bar })
            : `${chunk.from.bar}–${chunk.to.bar}`}
        </span>
      </button>
    );
  }
  return (
    <div className="flex flex-1 flex-col" style={{ flexGrow: leaves(chunk).length }}>
      <button
        type="button"
        aria-pressed={on}
        aria-label={say("item.joined", { place })}
        onClick={() => choose(chunk)}
        className={`mx-1 mb-1 h-6 rounded-t border-x-2 border-t-2 ${on ? "border-ahead bg-ahead/25" : "border-soft hover:bg-faint"}`}
      />
      <div className="flex flex-1 items-end gap-1">
        {chunk.parts.map((c) => (
          <Joined key={c.fromId} chunk={c} chosen={chosen} numbers={numbers} choose={choose} />
        ))}
      </div>
    </div>
  );
}
