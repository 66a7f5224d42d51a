import { describe, expect, it, test } from "vitest";
import type { Schemas } from "./client";
import { echo } from "./echo";
import type { Body, Fact } from "./outbox";

const day = "2026-11-18";
const lesson = {
  student: { id: "emil" },
  day,
  state: "open",
  noted: [],
  plan: { minutes: 30, blocks: [{ key: "current:lamp", minutes: 9 }] },
  rungs: [
    {
      id: "lamp",
      title: "Lamp Room",
      strand: "book",
      held: "tone",
      points: [{ key: "tone", name: "Tone", own: false, state: "unmarked" }],
      spots: [{ id: "s", where: "bar 11", goal: 5, done: 3 }],
    },
    { id: "jig", title: "The Jig", strand: "book", points: [], spots: [] },
    { id: "fog", title: "Fog", strand: "book", points: [], spots: [] },
  ],
} as unknown as Schemas["LessonView"];

const fact = (id: string, body: Body, student = "emil"): Fact => ({ id, student, at: "2026-11-18T16:05:00Z", body });
const met: Body = { kind: "point_marked", rung: "lamp", point: "tone", state: "met" };

describe("a lesson with marks that it does not hold yet", () => {
  it("shows what was touched, and that it waits", () => {
    const spot: Body = { kind: "spot_drilled", rung: "lamp", spot: "s", run: 4 };
    const seen = echo(lesson, "emil", [fact("1", met), fact("2", spot)], new Set(["2"]));
    expect(seen.rungs[0]?.points[0]?.state).toBe("met");
    expect(seen.rungs[0]?.held).toBe("");
    expect(seen.rungs[0]?.spots[0]?.done).toBe(4);
    expect(seen.noted).toMatchObject([
      { title: "Lamp Room", point: "Tone", waiting: false },
      { title: "Lamp Room", point: "bar 11", waiting: true },
    ]);
    expect(lesson.rungs[0]?.points[0]?.state).toBe("unmarked");
  });

  it("leaves out other students", () => {
    expect(echo(lesson, "emil", [fact("1", { kind: "taught", rung: "lamp" }, "priya")])).toBe(lesson);
  });

  it("does not double what the server has", () => {
    const served = echo(lesson, "emil", [fact("1", met)]);
    expect(echo(served, "emil", [fact("1", met)]).noted).toHaveLength(1);
  });

  it("takes back what stands", () => {
    const served = echo(lesson, "emil", [fact("1", met)]);
    expect(echo(served, "emil", [fact("2", { kind: "retracted", ref: "1" })]).noted.map((e) => e.back)).toEqual([true]);
  });

  it("counts five touches of longer as five minutes", () => {
    let seen = lesson;
    for (let i = 0; i < 5; i++) {
      const minutes = (seen.plan.blocks[0]?.minutes ?? 0) + 1;
      seen = echo(seen, "emil", [fact(`${i}`, { kind: "block_timed", day, block: "current:lamp", minutes })]);
    }
    expect(seen.plan.blocks[0]).toMatchObject({ minutes: 14, pinned: true });
  });

  it("begins, is rated, and moves a rung", () => {
    const planned = { ...lesson, state: "planned" } as typeof lesson;
    const seen = echo(planned, "emil", [
      fact("1", { kind: "lesson_opened", day }),
      fact("2", { kind: "lesson_rated", day, rating: "flowed" }),
      fact("3", { kind: "rung_moved", rung: "lamp", after: "jig" }),
    ]);
    expect([seen.state, seen.rating]).toEqual(["open", "flowed"]);
    expect(seen.rungs.map((r) => r.id)).toEqual(["jig", "lamp", "fog"]);
    const foot = echo(seen, "emil", [fact("4", { kind: "rung_moved", rung: "fog" })]);
    expect(foot.rungs.map((r) => r.id)).toEqual(["fog", "jig", "lamp"]);
    const other = echo(planned, "emil", [fact("5", { kind: "lesson_opened", day: "2026-11-25" })]);
    expect(other.state).toBe("planned");
  });
});

const home: Schemas["FamilyView"] = {
  student: "tobias",
  own: false,
  changed: [],
  parts: [],
  firstName: "Tobias",
  language: "en-GB",
  studio: "",
  now: "",
  today: day,
  acts: [],
  ticks: [],
  days: [],
  questions: ["Which finger?"],
  minutes: [],
  heard: [],
  weekdays: [],
  along: false,
  pieces: [],
  budget: 0,
  treats: true,
};
const told = (view: typeof home, ...bodies: [string, Body][]) =>
  echo(
    view,
    "tobias",
    bodies.map(([id, body]) => fact(id, body, "tobias")),
  );

test("at home what is told shows at once, and once", () => {
  const tick: Body = { kind: "ticked", day, line: "now r1" };
  const view = told(home, ["1", tick]);
  expect(view.ticks).toEqual([{ id: "1", day, key: "now r1" }]);
  expect(told(view, ["1", tick])).toEqual(view);
  expect(told(view, ["2", { kind: "retracted", ref: "1" }]).ticks).toEqual([]);
});

test("a day told again replaces the one before", () => {
  const first = told(home, ["1", { kind: "practised", day, minutes: 10 }]);
  const view = told(
    first,
    ["2", { kind: "retracted", ref: "1" }],
    ["3", { kind: "practised", day, minutes: 15, felt: "fun" }],
  );
  expect(view.days).toEqual([{ id: "3", day, minutes: 15, felt: "fun" }]);
});

test("a question is listed once", () => {
  const ask = (text: string): [string, Body] => [text, { kind: "question_asked", text }];
  expect(told(home, ask("Which finger?"), ask("Loud?")).questions).toEqual(["Which finger?", "Loud?"]);
});

test("days and a treat show as they were last told", () => {
  const view = told(
    home,
    ["1", { kind: "days_set", weekdays: [1, 3, 5], minutes: 15 }],
    ["2", { kind: "treat_set", name: "Chips on the pier", counts: "days", goal: 10 }],
  );
  expect(view.weekdays).toEqual([1, 3, 5]);
  expect(view.budget).toBe(15);
  expect(view.treat).toEqual({ name: "Chips on the pier", counts: "days", goal: 10, done: 0 });
  expect(told(view, ["3", { kind: "treat_dropped" }]).treat).toBeUndefined();
});
