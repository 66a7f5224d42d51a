import { describe, expect, it } from "vitest";
import { click, hearing, hertz, type Sound, strokes } from "./sound";

const note = (id: string, staff: number, onset: number, length: number, key: number): Sound => ({
  id,
  staff,
  onset,
  length,
  key,
  name: "",
  finger: "",
  string: 0,
  fret: 0,
});
const two = [note("a", 0, 0, 1, 60), note("b", 0, 1, 1, 62), note("c", 1, 0, 4, 48), note("d", 0, 2, 2, 64)];
const whole = { from: 0, to: 4, qpm: 60, speed: 1, beat: 1, beats: 4, staves: [0, 1] };

describe("strokes", () => {
  it("counts a bar in, then plays each note at its time", () => {
    const { list, length } = strokes(two, whole);
    expect(list.filter((s) => s.click).map((s) => s.at)).toEqual([0, 1, 2, 3]);
    expect(list.filter((s) => !s.click).map((s) => [s.ids[0], s.at, s.length])).toEqual([
      ["a", 4, 1],
      ["b", 5, 1],
      ["c", 4, 4],
      ["d", 6, 2],
    ]);
    expect(length).toBe(8);
  });
  it("plays at half speed", () => {
    expect(strokes(two, { ...whole, speed: 0.5, beats: 0 }).list.map((s) => s.at)).toEqual([0, 2, 0, 4]);
  });
  it("plays one hand, and only the chunk", () => {
    const { list } = strokes(two, { ...whole, from: 1, to: 3, beats: 0, staves: [0] });
    expect(list.map((s) => [s.ids[0], s.at, s.length])).toEqual([
      ["b", 0, 1],
      ["d", 1, 1],
    ]);
  });
  it("counts beats of three eighths", () => {
    const { list } = strokes(two, { ...whole, beat: 1.5, beats: 2, qpm: 90 });
    expect(list.filter((s) => s.click).map((s) => s.at)).toEqual([0, 1]);
    expect(list.find((s) => s.ids[0] === "a")?.at).toBe(2);
  });
});

// ISO 16: 440 Hz for the A above middle C.
it("sounds A at 440 hertz", () => {
  expect(hertz(69)).toBe(440);
  expect(hertz(57)).toBe(220);
});

describe("hearing", () => {
  const model = { hands: ["right", "left"], sounds: two, open: [], fretted: false, bars: [0, 4], beat: 1, qpm: 60 };
  it("plays a hand's passage until its last note has sounded, a bar counted in", () => {
    expect(hearing(model, { fromId: "a", toId: "b", hand: "right" }, 0.5)).toEqual({
      from: 0,
      to: 2,
      qpm: 60,
      speed: 0.5,
      beat: 1,
      beats: 4,
      staves: [0],
    });
  });
  it("plays both hands, as long as the longer holds", () => {
    const both = hearing(model, { fromId: "a", toId: "b", hand: "both" }, 1);
    expect(both.staves).toEqual([0, 1]);
    expect(both.to).toBe(4);
  });
  it("plays everything where nobody is that hand", () => {
    expect(hearing({ ...model, hands: ["left"] }, { fromId: "a", toId: "d", hand: "right" }, 1).staves).toEqual([0]);
  });
  it("counts at least two beats, also where the bar is one", () => {
    expect(hearing({ ...model, bars: [0, 1] }, { fromId: "a", toId: "d", hand: "right" }, 1).beats).toBe(2);
  });
});

describe("a metronome", () => {
  const clicks = (beats: number, parts: number, n: number) =>
    Array.from({ length: n }, (_, i) => ({ 96: "ONE", 91: "beat", 79: "." })[click({ bpm: 60, beats, parts }, i)]).join(
      " ",
    );
  it("clicks evenly", () => expect(clicks(1, 1, 3)).toBe("beat beat beat"));
  it("lets the first of a bar stand out", () => expect(clicks(3, 1, 6)).toBe("ONE beat beat ONE beat beat"));
  it("halves beats", () => expect(clicks(2, 2, 5)).toBe("ONE . beat . ONE"));
  it("parts them in three", () => expect(clicks(1, 3, 4)).toBe("beat . . beat"));
});
