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
