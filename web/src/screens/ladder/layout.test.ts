import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { heights, landing, lay, perWeek } from "./layout";

type Rung = Schemas["RungView"];

const rung = (id: string, state: Rung["state"], mid: number, more: Partial<Rung> = {}) =>
  ({ id, state, strand: "book", place: { low: mid / 2, mid, high: mid * 2 }, ...more }) as Rung;

const view = (...rungs: Rung[]) => ({ today: "2026-11-18", rungs, free: [] }) as unknown as Schemas["LadderView"];

describe("a lane to scale", () => {
  it("stands a rung at its expected foothold", () => {
    const laid = lay(view(rung("a", "ahead", 4)));
    expect(laid.lanes.book?.[0]?.y).toBe(4 * perWeek);
  });

  it("keeps two rungs of the same week apart, in order", () => {
    const [a, b] = lay(view(rung("a", "ahead", 4), rung("b", "ahead", 4))).lanes.book ?? [];
    expect(a && b && b.y - a.y).toBeGreaterThanOrEqual(40);
  });

  it("stands the first future rung above the current one", () => {
    const laid = lay(view(rung("now", "current", 3), rung("a", "ahead", 3)));
    expect(laid.current.book?.map((r) => r.id)).toEqual(["now"]);
    expect(laid.lanes.book?.[0]?.y).toBeGreaterThan(3 * perWeek + 24);
  });

  it("stands secure rungs below now at their foothold, newest on top", () => {
    const old = rung("old", "secure", 0, { foothold: "2026-10-07T16:00:00Z" });
    const fresh = rung("fresh", "secure", 0, { foothold: "2026-11-11T16:00:00Z" });
    const placed = lay(view(old, fresh)).lanes.book ?? [];
    expect(placed.map((p) => p.rung.id)).toEqual(["fresh", "old"]);
    expect(placed[1]?.y).toBe(-6 * perWeek);
    expect(placed[0]?.y).toBeLessThan(0);
  });

  it("draws weeks without lessons narrow", () => {
    const free = [{ name: "between terms", from: "2026-12-12", to: "2027-01-10" }];
    const at = heights({ today: "2026-11-18", free });
    expect(at(2)).toBe(2 * perWeek);
    expect(at(10) - at(8)).toBeCloseTo(2 * perWeek);
    expect(at(6) - at(5)).toBeCloseTo(0.35 * perWeek);
    expect(at(-3)).toBe(-3 * perWeek);
  });

  it("runs a thread from a head start up to its rung, a mark a task", () => {
    const start = {
      skill: "reach-back",
      rung: "jig",
      start: 0,
      ready: 3,
      done: 1,
      tasks: [1, 2, 3, 4],
      state: "running",
    };
    const laid = lay({
      ...view(rung("jig", "ahead", 8)),
      weekAt: [0, 1, 2, 3],
      headStarts: [start],
    } as unknown as Schemas["LadderView"]);
    const [thread] = laid.threads.book ?? [];
    expect(thread?.from).toBe(0);
    expect(thread?.to).toBe(8 * perWeek);
    expect(thread?.marks.map((m) => m.done)).toEqual([true, false, false, false]);
  });

  it("lands a dropped rung above the one under it", () => {
    const laid = lay(view(rung("a", "ahead", 3), rung("b", "ahead", 6), rung("c", "ahead", 9)));
    const lane = laid.lanes.book ?? [];
    const now = rung("now", "current", 1);
    expect(landing(lane, [now], [], "c", 4 * perWeek)).toBe("a");
    expect(landing(lane, [now], [], "c", 1 * perWeek)).toBe("now");
    expect(landing(lane, [], [], "a", 20 * perWeek)).toBe("c");
  });

  it("leaves parked rungs out", () => {
    expect(lay(view(rung("p", "parked", 2))).lanes.book).toEqual([]);
  });
});
