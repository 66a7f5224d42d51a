import { useRef } from "react";
import type { Schemas } from "../../api/client";
import { plural, shortDay, strandNames, weeks } from "../../parts/words";
import { type Laid, lay, type Placed, perWeek, type Rung } from "./layout";

type Props = { view: Schemas["LadderView"]; chosen: string; choose: (id: string) => void };

const strands = ["book", "technique", "reading", "repertoire"];

// Lanes draws the ladder: a list a lane, each rung at its height in time. In
// the reading order it is four plain lists, from the top down.
export function Lanes({ view, chosen, choose }: Props) {
  const laid = lay(view);
  const scrolled = useRef(false);
  const height = laid.top + laid.bottom;
  const first = Math.ceil(-laid.bottom / perWeek);
  const last = Math.floor(laid.top / perWeek);
  const marks = Array.from({ length: last - first + 1 }, (_, i) => first + i).filter((w) => w !== 0);
  return (
    <section aria-label="Ladder" className="flex min-w-0 flex-1 flex-col">
      <div className="grid grid-cols-[64px_repeat(4,1fr)] gap-x-3 pb-1.5 font-[620]">
        <span />
        {strands.map((s) => (
          <h2 key={s} id={`lane-${s}`} className="truncate">
            {strandNames[s]}
          </h2>
        ))}
      </div>
      <section
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolled region must be reachable by keyboard
        tabIndex={0}
        aria-label="Time, upward in weeks"
        className="relative h-[calc(100dvh-152px)] min-h-96 overflow-y-auto rounded bg-raised"
        ref={(el) => {
          if (el && !scrolled.current) {
            scrolled.current = true;
            el.scrollTop = laid.top - el.clientHeight * 0.66; // now stands at the lower third
          }
        }}
      >
        <div className="relative" style={{ height }}>
          <div className="absolute inset-x-0 bottom-0 bg-keep-tint" style={{ top: laid.top }} />
          {marks.map((w) => (
            <div
              key={w}
              className="absolute right-0 left-16 border-t border-faint"
              style={{ top: laid.top - w * perWeek }}
            >
              <span className="absolute -left-16 w-14 -translate-y-1/2 text-right text-small text-soft">
                {shortDay(addWeeks(view.today, w))}
              </span>
            </div>
          ))}
          <Breaks view={view} laid={laid} />
          <div className="absolute inset-0 grid grid-cols-[64px_repeat(4,1fr)] gap-x-3 pr-2">
            <span />
            {strands.map((s) => (
              <ol key={s} aria-labelledby={`lane-${s}`} className="relative">
                {(laid.lanes[s] ?? [])
                  .filter((p) => p.y > 0)
                  .reverse()
                  .map((p) => (
                    <Future key={p.rung.id} placed={p} top={laid.top} chosen={chosen} choose={choose} />
                  ))}
                {(laid.current[s] ?? []).map((r, i) => (
                  <Current key={r.id} rung={r} top={laid.top} index={i} chosen={chosen} choose={choose} />
                ))}
                {(laid.lanes[s] ?? [])
                  .filter((p) => p.y <= 0)
                  .map((p) => (
                    <Secure key={p.rung.id} placed={p} top={laid.top} chosen={chosen} choose={choose} />
                  ))}
              </ol>
            ))}
          </div>
          <div
            aria-hidden="true"
            className="pointer-events-none absolute inset-x-0 h-0.5 bg-now"
            style={{ top: laid.top }}
          >
            <span className="absolute -top-[11px] left-1 rounded-sm bg-now px-2.5 text-small font-[650] text-raised">
              now
            </span>
          </div>
          {view.rungs.length === 0 && (
            <p
              className="absolute inset-x-0 mx-auto mt-10 max-w-sm text-center text-large text-soft"
              style={{ top: laid.top - 190 }}
            >
              Rungs will stand here. Place the first piece with “Place a piece” at the right.
            </p>
          )}
        </div>
      </section>
    </section>
  );
}

function addWeeks(day: string, w: number) {
  return new Date(Date.parse(`${day}T00:00:00Z`) + w * 7 * 86_400_000).toISOString();
}

// Breaks shades the spans without lessons.
function Breaks({ view, laid }: { view: Schemas["LadderView"]; laid: Laid }) {
  const at = (d: string) =>
    ((Date.parse(`${d}T00:00:00Z`) - Date.parse(`${view.today}T00:00:00Z`)) / (7 * 86_400_000)) * perWeek;
  return view.free.map((f) => {
    const from = Math.max(at(f.from), -laid.bottom);
    const to = Math.min(at(f.to) + perWeek / 7, laid.top);
    if (to <= from) return null;
    return (
      <div
        key={f.from}
        className="absolute right-0 left-16 bg-faint/60"
        style={{ top: laid.top - to, height: to - from }}
      >
        <span className="absolute right-2 bottom-0.5 px-1 text-small text-soft">{f.name}</span>
      </div>
    );
  });
}

const marks: Record<string, string> = {
  book: "M-4 -4h8v8h-8z",
  technique: "M-5 4L0 -5L5 4Z",
  reading: "M-4.4 0a4.4 4.4 0 1 0 8.8 0a4.4 4.4 0 1 0 -8.8 0",
  repertoire: "M0 -5.5L5 0L0 5.5L-5 0Z",
};

// Sign is a strand's own small mark.
function Sign({ strand, className }: { strand: string; className: string }) {
  return (
    <svg aria-hidden="true" viewBox="-6 -6 12 12" className={`absolute -top-[7px] left-0 size-3 ${className}`}>
      <path d={marks[strand]} fill="currentColor" />
    </svg>
  );
}

type RungProps = { chosen: string; choose: (id: string) => void; top: number };

const pick = (on: boolean) => (on ? "bg-faint outline-2 outline-ahead" : "hover:bg-faint");

function Future({ placed, top, chosen, choose }: RungProps & { placed: Placed }) {
  const { rung, y, low, high } = placed;
  return (
    <li className="absolute inset-x-0" style={{ top: top - y }}>
      <span
        aria-hidden="true"
        className="absolute left-0.5 w-2 rounded bg-linear-to-b from-transparent via-ink to-transparent opacity-50"
        style={{ top: y - high, height: Math.max(high - low, 6) }}
      />
      <span aria-hidden="true" className="absolute inset-x-0 -top-px h-0.5 bg-ink" />
      <Sign strand={rung.strand} className="text-ink" />
      <button
        type="button"
        aria-pressed={chosen === rung.id}
        onClick={() => choose(chosen === rung.id ? "" : rung.id)}
        className={`absolute inset-x-0 top-0.5 rounded-sm pl-4 text-left leading-tight ${pick(chosen === rung.id)}`}
      >
        <b className="block truncate font-[620]">{rung.title}</b>
        <span className="block truncate text-small text-soft">{futureNote(rung)}</span>
      </button>
    </li>
  );
}

function futureNote(r: Rung) {
  const takes = r.expected ? `takes ${weeks(r.expected.whole.mid)}` : "";
  return r.brings.length ? `${takes} · ${r.brings.length} new` : takes;
}

function Current({ rung, top, index, chosen, choose }: RungProps & { rung: Rung; index: number }) {
  const above = Math.max((rung.place?.mid ?? 0) * perWeek, 22);
  const first = index === 0;
  return (
    <li className="absolute inset-x-0" style={{ top: first ? top - above : top + index * 56 }}>
      <button
        type="button"
        aria-pressed={chosen === rung.id}
        onClick={() => choose(chosen === rung.id ? "" : rung.id)}
        className={`relative block w-full rounded-sm border-[1.5px] border-now bg-now-tint px-2.5 text-left ${chosen === rung.id ? "outline-3 outline-ahead" : ""}`}
        style={{ height: (first ? above : 0) + 54 }}
      >
        <span className="absolute right-2 flex gap-1" style={{ top: first ? above - 18 : 6 }}>
          <span className="sr-only">{`${rung.points.filter((p) => p.state === "met").length} of ${rung.points.length} points met`}</span>
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
  if (!r.taught) return "waits for its first lesson";
  if (r.ready) return "ready to try";
  const done = r.parts.filter((p) => p.done).length;
  if (r.parts.length) return `${done} of ${r.parts.length} done, next ${r.parts.find((p) => !p.done)?.name}`;
  return r.expected
    ? `week ${Math.max(1, Math.round(r.weeks))}, likely ${Math.max(1, Math.round(r.expected.whole.mid))}`
    : "";
}

function Secure({ placed, top, chosen, choose }: RungProps & { placed: Placed }) {
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
            ? `silent ${plural(rung.silent, "day")}`
            : rung.silent === 0
              ? "heard today"
              : `heard ${plural(rung.silent, "day")} ago`}
        </span>
      </button>
    </li>
  );
}
