import { readdirSync, readFileSync } from "node:fs";
import { isValidElement, type ReactNode } from "react";
import { describe, expect, it } from "vitest";
import { rich, say, speak } from "./say";
import { plurals } from "./writing";

const catalogue = (language: string): Record<string, string> =>
  JSON.parse(readFileSync(`words/${language}.json`, "utf8"));

// The source of every screen, to find what is said in it.
function sources(dir = "src"): string[] {
  return readdirSync(dir, { withFileTypes: true }).flatMap((f) => {
    const path = `${dir}/${f.name}`;
    if (f.isDirectory()) return path.endsWith("made") ? [] : sources(path);
    return /\.tsx?$/.test(f.name) ? [readFileSync(path, "utf8")] : [];
  });
}

describe("the catalogue", () => {
  it("holds nothing that no screen says", () => {
    const said = new Set(sources().flatMap((s) => [...s.matchAll(/\b(?:say|rich)\(\s*"([^"]+)"/g)].map((m) => m[1])));
    expect(Object.keys(catalogue("en-GB")).filter((key) => !said.has(key))).toEqual([]);
  });

  it("is British, and American where it says otherwise", () => {
    const british =
      /\b(practise[sd]?|learnt|semitones?|crotchets?|quavers?|minims?|upbeats?|spike|programmes?|colours?)\b/i;
    const american = /\b(practiced|practices|learned|half steps?|(quarter|eighth|sixteenth) notes?|endpin|colors?)\b/i;
    const base = catalogue("en-GB");
    const words = (text: string) => text.replace(/\{\w+/g, "");
    expect(Object.values(base).filter((text) => american.test(words(text)))).toEqual([]);
    expect(Object.values({ ...base, ...catalogue("en-US") }).filter((text) => british.test(words(text)))).toEqual([]);
    const same = Object.entries(catalogue("en-US")).filter(([key, text]) => base[key] === text);
    expect(same).toEqual([]);
  });
});

describe("a message", () => {
  it("counts by the rules of its language", () => {
    const forms = { one: () => "one", few: () => "few", other: () => "other", "=0": () => "none" };
    const of = (language: string) => [0, 1, 2, 5].map((n) => plurals(language)(n, forms));
    expect(of("en-GB")).toEqual(["none", "one", "other", "other"]);
    expect(of("pl")).toEqual(["none", "one", "few", "other"]);
    expect(say("ladder.notPlayedDays", { silent: 1 })).toBe("not played for 1 day");
    expect(say("ladder.notPlayedDays", { silent: 3 })).toBe("not played for 3 days");
  });

  it("writes what stands around a part of it", () => {
    const put: ReactNode[] = [];
    const node = rich("lesson.learntMovesReviewNextPiece", {
      title: "Wet Boots",
      b: (text) => {
        put.push(text);
        return text;
      },
    });
    expect(isValidElement(node)).toBe(true);
    expect(put).toHaveLength(1);
  });

  it("is American for who reads that", async () => {
    await speak("studio", "en-US");
    expect(say("lesson.markLearnt2")).toBe("Mark as learned");
    await speak("studio", "en-GB");
    expect(say("lesson.markLearnt2")).toBe("Mark as learnt");
  });
});
