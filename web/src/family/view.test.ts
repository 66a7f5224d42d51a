import { expect, test } from "vitest";
import type { Schemas } from "../api/client";
import { type FamilyView, told } from "./view";

const empty: FamilyView = {
  student: "tobias",
  firstName: "Tobias",
  studio: "",
  now: "",
  today: "2026-11-18",
  ticks: [],
  days: [],
  questions: ["Which finger?"],
  minutes: [],
  heard: [],
  weekdays: [],
  budget: 0,
  treats: true,
};
const fact = (id: string, kind: Schemas["Fact"]["kind"], more: Partial<Schemas["Fact"]> = {}): Schemas["Fact"] => ({
  id,
  student: "tobias",
  at: "",
  kind,
  ...more,
});

test("what is told shows at once, and once", () => {
  const tick = fact("1", "ticked", { day: "2026-11-18", text: "now r1" });
  const view = told(empty, [tick]);
  expect(view.ticks).toEqual([{ id: "1", day: "2026-11-18", key: "now r1" }]);
  expect(told(view, [tick])).toEqual(view);
  expect(told(view, [fact("2", "retracted", { ref: "1" })]).ticks).toEqual([]);
});

test("a day told again replaces the one before", () => {
  const first = fact("1", "practised", { day: "2026-11-18", minutes: 10 });
  const view = told(told(empty, [first]), [
    fact("2", "retracted", { ref: "1" }),
    fact("3", "practised", { day: "2026-11-18", minutes: 15, text: "fun" }),
  ]);
  expect(view.days).toEqual([{ id: "3", day: "2026-11-18", minutes: 15, felt: "fun" }]);
});

test("a question is listed once", () => {
  const ask = (text: string) => fact("4", "question_asked", { text });
  expect(told(empty, [ask("Which finger?"), ask("Loud?")]).questions).toEqual(["Which finger?", "Loud?"]);
});

test("days and a treat show as they were last told", () => {
  const days = fact("1", "days_set", { text: "1 3 5", minutes: 15 });
  const treat = fact("2", "treat_set", { text: "Chips on the pier", outcome: "days", count: 10 });
  const view = told(empty, [days, treat]);
  expect(view.weekdays).toEqual([1, 3, 5]);
  expect(view.budget).toBe(15);
  expect(view.treat).toEqual({ name: "Chips on the pier", counts: "days", goal: 10, done: 0 });
  expect(told(view, [fact("3", "treat_dropped")]).treat).toBeUndefined();
});
