import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { namedDay, plural, sentence, span, tellOf, weeks } from "./words";

describe("words", () => {
  it("says reasons as sentences", () => {
    expect(sentence({ code: "fading", args: { days: "23", recall: "81" } })).toBe(
      "Last played 23 days ago: about 81 in 100 that it still goes well.",
    );
    expect(sentence({ code: "fading", args: { days: "1", recall: "95" } })).toContain("1 day ago");
    expect(sentence({ code: "still-open", args: { count: "1", first: "Tone" } })).toBe("Only Tone is left.");
  });

  it("falls back to the code of a reason it does not know", () => {
    expect(sentence({ code: "brand-new" as never, args: {} })).toBe("brand-new");
  });

  it("counts and rounds", () => {
    expect(plural(1, "week")).toBe("1 week");
    expect(plural(2, "week")).toBe("2 weeks");
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
    expect(tellOf(entry(""))).toBe("foothold granted");
    expect(tellOf(entry("refused"))).toContain("turned back");
  });
});
