import { expect, test } from "vitest";
import { timeOfDay } from "./prefs";

test("a time of day in either way", () => {
  const both = (t: string) => [timeOfDay(t, "24"), timeOfDay(t, "12")];
  expect(both("00:05")).toEqual(["00:05", "12:05 am"]);
  expect(both("09:30")).toEqual(["09:30", "9:30 am"]);
  expect(both("12:00")).toEqual(["12:00", "12:00 pm"]);
  expect(both("16:45")).toEqual(["16:45", "4:45 pm"]);
  expect(both("")).toEqual(["", ""]);
});
