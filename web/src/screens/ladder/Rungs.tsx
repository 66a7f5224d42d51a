import { useRef, useState } from "react";
import { slopes, strandMarks, weeks } from "../../parts/words";
import { say } from "../../words/say";
import { boxed, type Placed, type Rung } from "./layout";

// Sign is a strand's own small mark.
function Sign({ strand, className }: { strand: string; className: string }) {
  return (
    <svg aria-hidden="true" viewBox="-6 -6 12 12" className={`absolute -top-[7px] left-0 size-3 ${className}`}>
      <path d={strandMarks[strand]} fill="currentColor" />
    </svg>
  );
}

type RungProps = { chosen: string; choose: (id: string) => void; top: number; at: (weeks: number) => number };

const pick = (on: boolean) => (on ? "bg-faint outline-2 outline-ahead" : "hover:bg-faint");

const enough = 12; // px that a pointer must move before a rung is dragged

// Future is a rung ahead or one that is proposed. A rung ahead can be dragged
// to another height of its lane.
export function Future({
  placed,
  top,
  chosen,
  choose,
  drop,
}: RungProps & { placed: Placed; drop: (id: string, y: number) => void }) {
  const { rung, y, low, high } = placed;
  const [from, setFrom] = useState<number>();
  const [by, setBy] = useState(0);
  const dragged = useRef(false); // the click that ends a drag chooses nothing
  const proposed = rung.state === "proposed";
  const end = () => {
    setFrom(undefined);
    setBy(0);
  };
  const drag = proposed
    ? {}
    : {
        onPointerDown: (e: React.PointerEvent<HTMLElement>) => {
          dragged.current = false;
          if (e.button !== 0) return;
          e.currentTarget.setPointerCapture(e.pointerId);
          setFrom(e.clientY);
        },
        onPointerMove: (e: React.PointerEvent<HTMLElement>) => {
          if (from !== undefined) setBy(e.clientY - from);
        },
        onPointerUp: () => {
          dragged.current = Math.abs(by) >= enough;
          if (dragged.current) drop(rung.id, y - by);
          end();
        },
        onPointerCancel: end,
      };
  const onClick = () => {
    if (!dragged.current) choose(chosen === rung.id ? "" : rung.id);
    dragged.current = false;
  };
  return (
    <li
      className={`absolute inset-x-0 ${by ? "z-10 opacity-80" : ""}`}
      style={{ top: top - y, transform: Math.abs(by) >= enough ? `translateY(${by}px)` : undefined }}
    >
      <span
        aria-hidden="true"
        className={`absolute left-0.5 w-2 rounded bg-linear-to-b from-transparent via-ink to-transparent ${proposed ? "opacity-20" : "opacity-50"}`}
        style={{ top: y - high, height: Math.max(high - low, 6) }}
      />
      <span
        aria-hidden="true"
        className={`absolute inset-x-0 -top-px ${proposed ? "border-t-2 border-dashed border-soft" : "h-0.5 bg-ink"}`}
      />
      <Sign strand={rung.strand} className={proposed ? "text-soft" : "text-ink"} />
      <button
        type="button"
        aria-pressed={chosen === rung.id}
        onClick={onClick}
        {...drag}
        className={`absolute inset-x-0 top-0.5 touch-none rounded-sm pl-4 text-left leading-tight ${pick(chosen === rung.id)}`}
      >
        <b className={`block truncate ${proposed ? "font-normal" : "font-[620]"}`}>{rung.title}</b>
        <span className="block truncate text-small text-soft">{futureNote(rung)}</span>
      </button>
    </li>
  );
}

function futureNote(r: Rung) {
  const slope = r.load && r.load.slope !== "step" && slopes[r.load.slope];
  const takes = r.expected ? weeks(r.expected.whole.mid) : "";
  const fresh = r.load?.new.length ? say("ladder.new", { new: r.load.new.length }) : "";
  return [r.state === "proposed" ? say("ladder.suggested") : "", slope, takes, fresh].filter(Boolean).join(" · ");
}

export function Current({ rung, top, at, index, chosen, choose }: RungProps & { rung: Rung; index: number }) {
  const above = Math.max(boxed(rung, at), 22);
  const first = index === 0;
  return (
    <li className="absolute inset-x-0" style={{ top: first ? top - above : top + index * 56 }}>
      <button
        type="button"
        aria-pressed={chosen === rung.id}
        onClick={() => choose(chosen === rung.id ? "" : rung.id)}
        className={`relative block w-full rounded-sm border-[1.5px] bg-now-tint px-2.5 text-left ${rung.expected?.past ? "border-warn" : "border-now"} ${chosen === rung.id ? "outline-3 outline-ahead" : ""}`}
        style={{ height: (first ? above : 0) + 54 }}
      >
        <span className="absolute right-2 flex gap-1" style={{ top: first ? above - 18 : 6 }}>
          <span className="sr-only">
            {say("ladder.goalsReached", {
              done: rung.points.filter((p) => p.state === "met").length,
              points: rung.points.length,
            })}
          </span>
          {rung.points.map((p) => (
            <span
              key={p.key}
              aria-hidden="true"
              className={`size-2.5 rounded-full border-[1.5px] border-now ${p.state === "met" ? "bg-now" : "bg-raised"}`}
            />
          ))}
        </span>
        <span className="absolute inset-x-2.5 bottom-2 leading-tight">
          <b className="block truncate font-[650]">{rung.title}</b>
          <span className="block truncate text-small text-soft">{currentNote(rung)}</span>
        </span>
      </button>
    </li>
  );
}

function currentNote(r: Rung) {
  if (!r.taught) return say("ladder.waitingItsFirstLesson");
  if (r.ready) return say("ladder.readyPlayThrough");
  const done = r.parts.filter((p) => p.done).length;
  const week = Math.max(1, Math.round(r.weeks));
  if (r.parts.length)
    return say("ladder.weekDone", { n: done + 1, parts: r.parts.length, name: r.parts.find((p) => p.due)?.name, done });
  if (!r.expected) return "";
  if (r.expected.past) return say("ladder.weekMostUsual", { week, amount: Math.round(r.expected.usual.high) });
  return say("ladder.weekExpected", { week, n: Math.max(week, Math.round(r.expected.whole.mid)) });
}

export function Secure({ placed, top, chosen, choose }: RungProps & { placed: Placed }) {
  const { rung, y } = placed;
  const strength = Math.max(0.2, (rung.recall - 0.6) / 0.4); // the line fades, the text keeps its contrast
  const fading = strength < 0.6;
  return (
    <li className="absolute inset-x-0" style={{ top: top - y }}>
      <span aria-hidden="true" className="absolute inset-x-0 -top-px h-0.5 bg-keep" style={{ opacity: strength }} />
      <Sign strand={rung.strand} className="text-keep" />
      <button
        type="button"
        aria-pressed={chosen === rung.id}
        onClick={() => choose(chosen === rung.id ? "" : rung.id)}
        className={`absolute inset-x-0 top-0.5 rounded-sm pl-4 text-left leading-tight ${pick(chosen === rung.id)}`}
      >
        <b className={`block truncate ${fading ? "font-normal" : "font-[620]"}`}>{rung.title}</b>
        <span className="block truncate text-small text-soft">
          {fading
            ? say("ladder.notPlayedDays", { silent: rung.silent })
            : rung.silent === 0
              ? say("ladder.playedToday")
              : say("ladder.playedDaysAgo", { silent: rung.silent })}
        </span>
      </button>
    </li>
  );
}
