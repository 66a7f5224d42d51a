import { expect, it } from "vitest";
import { length, toCM, toShown } from "./units";

it("shows lengths in centimetres or inches, and back", () => {
  expect(length(14, "cm")).toBe("14 cm");
  expect(length(14, "in")).toBe("5.5 in");
  expect(toCM(5.5, "in")).toBe(14);
  expect(toCM(toShown(48.3, "cm"), "cm")).toBe(48.3);
});
