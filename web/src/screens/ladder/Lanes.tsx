import { useRef } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { shortDay, strandNames } from "../../parts/words";
import { say } from "../../words/say";
import { heights, type Laid, landing, lay, strands } from "./layout";
import { Current, Future, Secure } from "./Rungs";
import { Threads } from "./Threads";

type Props = { view: Schemas["LadderView"]; chosen: string; choose: (id: string) => void };

// Lanes draws the ladder: a list a lane, each rung at its height in time. In
// the reading order it is four plain lists, from the top down.
export function Lanes({ view, chosen, choose }: Props) {
  const laid = lay(view);
  const at = heights(view);
  const scrolled = useRef(false);
  const height = laid.top + laid.bottom;
  const marks = weekMarks(laid, at);
  const drop = (strand: string) => (id: string, y: number) => {
    const lane = view.rungs.filter((r) => r.strand === strand);
    const secure = lane.filter((r) => r.state === "secure");
    const after = landing(laid.lanes[strand] ?? [], laid.current[strand] ?? [], secure, id, y);
    if (lane[lane.findIndex((r) => r.id === id) - 1]?.id !== after) {
      tell(view.student.id, { kind: "rung_moved", rung: id, after });
    }
  };
  const shared = { top: laid.top, at, chosen, choose };
  return (
    <section aria-label={say("ladder.ladder")} className="flex min-w-0 flex-1 flex-col">
      <div className="grid grid-cols-[64px_repeat(4,1fr)] gap-x-7 pr-7 pb-1.5 font-[620]">
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
        aria-label={say("ladder.timeUpwardWeeks")}
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
          {marks.map(({ week, y, named }) => (
            <div key={week} className="absolute right-0 left-16 border-t border-faint" style={{ top: laid.top - y }}>
              {named && (
                <span className="absolute -left-16 w-14 -translate-y-1/2 text-right text-small text-soft">
                  {shortDay(addWeeks(view.today, week))}
                </span>
              )}
            </div>
          ))}
          <Breaks view={view} laid={laid} at={at} />
          <Dates view={view} laid={laid} at={at} />
          <div className="absolute inset-0 grid grid-cols-[64px_repeat(4,1fr)] gap-x-7 pr-7">
            <span />
            {strands.map((s) => (
              <ol key={s} aria-labelledby={`lane-${s}`} className="relative min-w-0">
                {(laid.lanes[s] ?? [])
                  .filter((p) => p.y > 0)
                  .reverse()
                  .map((p) => (
                    <Future key={p.rung.id} placed={p} drop={drop(s)} {...shared} />
                  ))}
                {(laid.current[s] ?? []).map((r, i) => (
                  <Current key={r.id} rung={r} index={i} {...shared} />
                ))}
                {(laid.lanes[s] ?? [])
                  .filter((p) => p.y <= 0)
                  .map((p) => (
                    <Secure key={p.rung.id} placed={p} {...shared} />
                  ))}
                <Threads threads={laid.threads[s] ?? []} top={laid.top} />
              </ol>
            ))}
          </div>
          <div
            aria-hidden="true"
            className="pointer-events-none absolute inset-x-0 h-0.5 bg-now"
            style={{ top: laid.top }}
          >
            <span className="absolute -top-[11px] left-1 rounded-sm bg-now px-2.5 text-small font-[650] text-raised">
              {say("ladder.now")}
            </span>
          </div>
          {view.rungs.length === 0 && (
            <p
              className="absolute inset-x-0 mx-auto mt-10 max-w-sm text-center text-large text-soft"
              style={{ top: laid.top - 190 }}
            >
              {say("ladder.rungsWillStandHereChoose")}
            </p>
          )}
        </div>
      </section>
    </section>
  );
}

// weekMarks lists the weeks that are drawn, each named when there is room since
// the last name.
function weekMarks(laid: Laid, at: (w: number) => number) {
  const room = 44; // px
  const marks: { week: number; y: number; named: boolean }[] = [];
  for (const way of [1, -1]) {
    let last = 0;
    for (let week = way; ; week += way) {
      const y = at(week);
      if (y > laid.top || y < -laid.bottom) break;
      const named = Math.abs(y - last) >= room;
      if (named) last = y;
      marks.push({ week, y, named });
    }
  }
  return marks;
}

type Drawn = { view: Schemas["LadderView"]; laid: Laid; at: (weeks: number) => number };

function addWeeks(day: string, w: number) {
  return new Date(Date.parse(`${day}T00:00:00Z`) + w * 7 * 86_400_000).toISOString();
}

// Breaks shades the spans without lessons.
function Breaks({ view, laid, at }: Drawn) {
  const weeks = (d: string) =>
    (Date.parse(`${d}T00:00:00Z`) - Date.parse(`${view.today}T00:00:00Z`)) / (7 * 86_400_000);
  return view.free.map((f) => {
    const from = Math.max(at(weeks(f.from)), -laid.bottom);
    const to = Math.min(at(weeks(f.to) + 1 / 7), laid.top);
    if (to <= from) return null;
    return (
      <div
        key={f.from}
        className="absolute right-0 left-16 bg-faint/60"
        style={{ top: laid.top - to, height: to - from }}
      >
        <span className="absolute right-2 bottom-0.5 px-1 text-small text-soft">
          {f.name || say("ladder.betweenTerms")}
        </span>
      </div>
    );
  });
}

// Dates draws the days by which rungs should be polished.
function Dates({ view, laid, at }: Drawn) {
  return view.targets.map((t) => {
    const y = at(t.in);
    if (y > laid.top) return null;
    const title = view.rungs.find((r) => r.id === t.rung)?.title;
    return (
      <div
        key={t.rung}
        className="absolute right-0 left-16 border-t-2 border-dotted border-ink"
        style={{ top: laid.top - y }}
      >
        <span className="absolute right-2 bottom-0.5 rounded-sm bg-raised px-1 text-small">
          {say("ladder.titleBy", { title, day: shortDay(t.day) })}
        </span>
      </div>
    );
  });
}
