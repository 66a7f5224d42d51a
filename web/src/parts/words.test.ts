import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { namedDay, span, tellOf, weeks } from "./words";

describe("words", () => {
  it("counts and rounds", () => {
    expect(weeks(0.5)).toBe("under a week");
    expect(span(0.4, 1.2)).toBe("1 week");
    expect(span(1.8, 4.1)).toBe("2–4 weeks");
  });

  it("names days without a zone's help", () => {
    expect(namedDay("2026-11-18")).toBe("Wed 18 Nov");
  });

  it("tells a refused try apart from a granted one", () => {
    const entry = (note: "" | "refused") =>
      ({
        fact: { body: { kind: "foothold_tried", rung: "r", outcome: "granted" } },
        title: "",
        point: "",
        back: false,
        note,
      }) as unknown as Schemas["Entry"];
    expect(tellOf(entry(""))).toBe("marked as learnt");
    expect(tellOf(entry("refused"))).toContain("too early");
  });
});
