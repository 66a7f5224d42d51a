import { describe, expect, it } from "vitest";
import type { Fact } from "../../api/outbox";
import type { LessonView } from "./LessonScreen";
import { type Noted, withWaiting } from "./waiting";

const view = {
  student: { id: "emil" },
  state: "open",
  noted: [],
  rungs: [
    {
      id: "lamp",
      title: "Lamp Room",
      held: "tone",
      points: [{ key: "tone", name: "Tone", own: false, state: "unmarked" }],
      spots: [{ id: "s", where: "bar 11", goal: 5, done: 3 }],
    },
  ],
} as unknown as LessonView;

const fact = (id: string, more: Partial<Fact>) =>
  ({ id, student: "emil", at: "2026-11-18T16:05:00Z", rung: "lamp", ...more }) as Fact;

describe("marks that wait", () => {
  it("show what was touched, and that it waits", () => {
    const seen = withWaiting(view, [
      { fact: fact("1", { kind: "point_met", point: "tone" }) },
      { fact: fact("2", { kind: "spot_drilled", spot: "s", count: 4 }) },
    ]);
    expect(seen.rungs[0]?.points[0]?.state).toBe("met");
    expect(seen.rungs[0]?.held).toBe("");
    expect(seen.rungs[0]?.spots[0]?.done).toBe(4);
    expect((seen.noted as Noted[]).map((e) => [e.title, e.waiting])).toEqual([
      ["Lamp Room", true],
      ["Lamp Room", true],
    ]);
    expect(view.rungs[0]?.points[0]?.state).toBe("unmarked");
  });

  it("leave out other students and refused marks", () => {
    const other = { fact: { ...fact("1", { kind: "taught" }), student: "priya" } };
    const refused = { fact: fact("2", { kind: "taught" }), refused: "no" };
    expect(withWaiting(view, [other, refused])).toBe(view);
  });

  it("do not double what the server has", () => {
    const told = fact("1", { kind: "point_met", point: "tone" });
    const served = {
      ...view,
      noted: [{ fact: told, title: "Lamp Room", point: "Tone", back: false, note: "" }],
    } as LessonView;
    expect(withWaiting(served, [{ fact: told }]).noted).toHaveLength(1);
  });

  it("stay shown between reaching the server and the next look at it", () => {
    const told = { fact: fact("1", { kind: "lesson_opened", day: "2026-11-18" }), at: 1000 };
    const planned = { ...view, state: "planned" } as LessonView;
    const seen = withWaiting(planned, [], [told], 900);
    expect(seen.state).toBe("open");
    expect((seen.noted as Noted[])[0]?.waiting).toBe(false);
    expect(withWaiting(planned, [], [told], 1100).state).toBe("planned");
  });

  it("take back what stands", () => {
    const told = fact("1", { kind: "point_met", point: "tone" });
    const served = {
      ...view,
      noted: [{ fact: told, title: "Lamp Room", point: "Tone", back: false, note: "" }],
    } as LessonView;
    const seen = withWaiting(served, [{ fact: fact("2", { kind: "retracted", ref: "1" }) }]);
    expect(seen.noted.map((e) => e.back)).toEqual([true]);
  });
});
