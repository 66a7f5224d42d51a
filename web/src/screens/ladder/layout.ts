import type { Schemas } from "../../api/client";

export type Rung = Schemas["RungView"];

export const strands = ["book", "technique", "reading", "repertoire"];
export const perWeek = 26; // px
const least = 40; // px between two rungs of a lane, for their two lines of text

export type Placed = { rung: Rung; y: number; low: number; high: number };

// A Thread runs from a head start up to the rung that first needs it, beside
// its lane: in px above now.
export type Thread = { start: Schemas["HeadStart"]; from: number; to: number; marks: { y: number; done: boolean }[] };

export type Laid = {
  top: number;
  bottom: number;
  lanes: Record<string, Placed[]>;
  current: Record<string, Rung[]>;
  threads: Record<string, Thread[]>;
};

const narrow = 0.35; // of its height that a week without lessons has

// heights gives the px above now of a time in calendar weeks from now. Weeks
// without lessons are drawn narrow: nothing moves in them.
export function heights(view: Pick<Schemas["LadderView"], "free" | "today">): (weeks: number) => number {
  const gaps = view.free.map((f) => ({ from: -weeksAgo(view.today, f.from), to: -weeksAgo(view.today, f.to) + 1 / 7 }));
  const inside = (low: number, high: number) =>
    gaps.reduce((sum, g) => sum + Math.max(0, Math.min(high, g.to) - Math.max(low, g.from)), 0);
  return (w) => {
    const [low, high] = w < 0 ? [w, 0] : [0, w];
    return Math.sign(w) * perWeek * (high - low - (1 - narrow) * inside(low, high));
  };
}

const weeksAgo = (today: string, at?: string) =>
  at ? (Date.parse(`${today}T00:00:00Z`) - Date.parse(`${at.slice(0, 10)}T00:00:00Z`)) / (7 * 86_400_000) : 0;

// lay gives each rung its height in px above the now line (below is negative).
// Rungs that would run into each other are pushed apart, away from now.
export function lay(view: Schemas["LadderView"]): Laid {
  const height = heights(view);
  const lanes: Record<string, Placed[]> = {};
  const current: Record<string, Rung[]> = {};
  const threads: Record<string, Thread[]> = {};
  let top = 10 * perWeek;
  let bottom = 4 * perWeek;
  for (const strand of strands) {
    const own = view.rungs.filter((r) => r.strand === strand);
    const now = own.filter((r) => r.state === "current");
    current[strand] = now;
    const placed: Placed[] = [];
    let floor = 24 + now.reduce((h, r) => Math.max(h, boxed(r, height)), 0);
    for (const rung of own.filter((r) => r.state === "ahead" || r.state === "proposed")) {
      const place = rung.place ?? { low: 0, mid: 0, high: 0 };
      const mid = height(place.mid);
      const y = Math.max(mid, floor + (placed.length || now.length ? least : 0));
      const shift = y - mid;
      placed.push({ rung, y, low: height(place.low) + shift, high: Math.min(height(place.high) + shift, y + 160) });
      floor = y;
    }
    let ceiling = -now.length * 56 - 6;
    const secure = own
      .filter((r) => r.state === "secure")
      .sort((a, b) => (b.foothold ?? "").localeCompare(a.foothold ?? ""));
    for (const rung of secure) {
      const y = Math.min(height(-weeksAgo(view.today, rung.foothold)), ceiling);
      placed.push({ rung, y, low: y, high: y });
      ceiling = y - least;
    }
    lanes[strand] = placed;
    threads[strand] = threadsOf(view, placed, height);
    for (const p of placed) {
      top = Math.max(top, p.y + 30);
      bottom = Math.max(bottom, 44 - p.y);
    }
  }
  return { top, bottom, lanes, current, threads };
}

// boxed is how high the box of a piece in hand stands above now; one that is
// stuck is cut off, its date stands in its note.
export const boxed = (r: Rung, height: (w: number) => number) => Math.min(height(r.place?.mid ?? 0), 6 * perWeek);

function threadsOf(view: Schemas["LadderView"], placed: Placed[], height: (w: number) => number): Thread[] {
  return (view.headStarts ?? []).flatMap((start) => {
    const to = placed.find((p) => p.rung.id === start.rung && p.y > 0)?.y;
    if (to === undefined) return [];
    const at = (week: number) => Math.min(height(view.weekAt[Math.round(week)] ?? week), to - 8);
    const from = start.done > 0 ? 0 : at(start.start);
    const left = start.tasks.length - start.done;
    const marks = start.tasks.map((_, i) =>
      i < start.done
        ? { y: -11, done: true } // just below now
        : { y: at(start.start + ((start.ready - start.start) * (i - start.done)) / Math.max(left, 1)), done: false },
    );
    return [{ start, from, to, marks: start.done > 1 ? marks.slice(start.done - 1) : marks }];
  });
}

// landing says above which rung of its lane one that is dropped at a height
// would stand.
export function landing(placed: Placed[], current: Rung[], secure: Rung[], id: string, y: number): string {
  const under = placed.filter((p) => p.rung.id !== id && p.rung.state === "ahead" && p.y < y).sort((a, b) => b.y - a.y);
  return under[0]?.rung.id ?? current.at(-1)?.id ?? secure.at(-1)?.id ?? "";
}
