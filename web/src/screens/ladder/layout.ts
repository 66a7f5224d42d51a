import type { Schemas } from "../../api/client";

export type Rung = Schemas["RungView"];

export const perWeek = 34; // px
const least = 40; // px between two rungs of a lane, for their two lines of text

export type Placed = { rung: Rung; y: number; low: number; high: number };

export type Laid = { top: number; bottom: number; lanes: Record<string, Placed[]>; current: Record<string, Rung[]> };

const weeksAgo = (today: string, at?: string) =>
  at ? (Date.parse(`${today}T00:00:00Z`) - Date.parse(`${at.slice(0, 10)}T00:00:00Z`)) / (7 * 86_400_000) : 0;

// lay gives each rung its height in px above the now line (below is negative).
// Rungs that would run into each other are pushed apart, away from now.
export function lay(view: Schemas["LadderView"]): Laid {
  const lanes: Record<string, Placed[]> = {};
  const current: Record<string, Rung[]> = {};
  let top = 10 * perWeek;
  let bottom = 4 * perWeek;
  for (const strand of ["book", "technique", "reading", "repertoire"]) {
    const own = view.rungs.filter((r) => r.strand === strand);
    const now = own.filter((r) => r.state === "current");
    current[strand] = now;
    const placed: Placed[] = [];
    let floor = 24 + now.reduce((h, r) => Math.max(h, (r.place?.mid ?? 0) * perWeek), 0);
    for (const rung of own.filter((r) => r.state === "ahead")) {
      const place = rung.place ?? { low: 0, mid: 0, high: 0 };
      const y = Math.max(place.mid * perWeek, floor + (placed.length || now.length ? least : 0));
      const shift = y - place.mid * perWeek;
      placed.push({ rung, y, low: place.low * perWeek + shift, high: Math.min(place.high * perWeek + shift, y + 160) });
      floor = y;
    }
    let ceiling = -now.length * 56 - 6;
    const secure = own
      .filter((r) => r.state === "secure")
      .sort((a, b) => (b.foothold ?? "").localeCompare(a.foothold ?? ""));
    for (const rung of secure) {
      const y = Math.min(-weeksAgo(view.today, rung.foothold) * perWeek, ceiling);
      placed.push({ rung, y, low: y, high: y });
      ceiling = y - least;
    }
    lanes[strand] = placed;
    for (const p of placed) {
      top = Math.max(top, p.y + 30);
      bottom = Math.max(bottom, 44 - p.y);
    }
  }
  return { top, bottom, lanes, current };
}
