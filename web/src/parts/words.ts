import type { Schemas } from "../api/client";
import { plural, shortDay } from "./dates";

export * from "./dates";
export { note, sentence } from "./sentences";

// notKept says what a reader of files did not keep, and where it first stood.
export const notKept = (list: Schemas["Unread"][]) =>
  list
    .map((u) => `${u.what}, ${u.bar ? `bar ${u.bar}` : "head"}${u.count > 1 ? ` and ${u.count - 1} more` : ""}`)
    .join("; ");

// weeks writes a number of weeks as a teacher would say it.
export function weeks(n: number): string {
  if (n < 1) return "under a week";
  return plural(Math.round(n), "week");
}

// span writes a range of weeks: "2–4 weeks".
export function span(low: number, high: number): string {
  const [a, b] = [Math.max(1, Math.round(low)), Math.max(1, Math.round(high))];
  if (a > foreseen) return "more than two years";
  if (b > foreseen) return `${plural(a, "week")} to more than two years`;
  return a === b ? plural(a, "week") : `${a}–${b} weeks`;
}

// foreseen is the longest time that is told in weeks.
const foreseen = 104;

export type Grade = Extract<Schemas["FactBody"], { kind: "heard" }>["grade"];

export const grades: Record<Grade, string> = {
  "fell-apart": "fell apart",
  rough: "rough",
  fine: "fine",
  easily: "easily",
};

export const strandNames: Record<string, string> = {
  book: "Book",
  technique: "Technique",
  reading: "Reading and theory",
  repertoire: "Repertoire",
};

// A strand's own small mark, as a path around its middle.
export const strandMarks: Record<string, string> = {
  book: "M-4 -4h8v8h-8z",
  technique: "M-5 4L0 -5L5 4Z",
  reading: "M-4.4 0a4.4 4.4 0 1 0 8.8 0a4.4 4.4 0 1 0 -8.8 0",
  repertoire: "M0 -5.5L5 0L0 5.5L-5 0Z",
};

// figureNames are what the figures of a take are called.
const figureNames: Record<Extract<Schemas["FactBody"], { kind: "played_in" }>["figure"], string> = {
  even: "even",
  slips: "slips",
  stops: "stops",
  lope: "it lopes",
  drift: "the tempo drifts",
  spread: "uneven",
  late: "late",
  early: "early",
  strong: "too strong",
  weak: "too weak",
  apart: "the hands are apart",
  scatter: "the hands fall apart",
};

const cancelled = { student: " by the student", teacher: " by the teacher", illness: " for illness" };

// tellOf says what a fact told, without its piece.
export function tellOf(e: Schemas["Entry"]): string {
  const f = e.fact.body;
  switch (f.kind) {
    case "rung_added":
      return f.parked ? "left out of the ladder" : "placed on the ladder";
    case "rung_moved":
      return "moved on the ladder";
    case "rung_revised":
      return "points and parts taken over from the shelf";
    case "rung_parked":
      return "parked";
    case "rung_resumed":
      return "taken up again";
    case "taught":
      return "had a lesson";
    case "point_held":
      return `${e.point} held in mind`;
    case "point_marked":
      return `${e.point} ${f.state === "met" ? "met" : "not yet"}`;
    case "self_judged":
      return `${e.point ? `${e.point}: ` : ""}the student says ${f.says}`;
    case "own_point":
      return `standing point: ${f.name}`;
    case "spot_noted":
      return `spot noted: ${f.where}, ${f.goal} in a row wanted`;
    case "spot_drilled":
      return `spot ${e.point}: ${f.run} in a row`;
    case "line_struck":
      return "a line struck from the sheet";
    case "line_changed":
      return "a line of the sheet changed";
    case "line_moved":
      return `a line of the sheet moved ${f.to}`;
    case "line_pinned":
      return "a line of the sheet pinned";
    case "line_added":
      return `on the sheet: ${f.text}`;
    case "sheet_noted":
      return `to the family: ${f.text}`;
    case "count_kept":
      return "a number of times kept for sheets to come";
    case "sort_kept":
      return "a sort of line drafted again";
    case "card_answered":
      return `card ${f.card}: ${f.outcome === "pass" ? "right" : f.outcome === "nearly" ? "nearly" : "not yet"}`;
    case "foothold_tried":
      if (e.note === "refused") return "a try, turned back: no lesson yet";
      if (f.outcome !== "granted") return `tried, not yet${f.note ? `: ${f.note}` : ""}`;
      return `foothold granted${f.part ? `, ${f.part}` : ""}`;
    case "polished":
      return "polished";
    case "heard":
      return `heard: ${grades[f.grade]}`;
    case "opened_with":
      return "chosen to open with";
    case "prepared":
      return `head start on ${e.point}, task ${f.step}`;
    case "probed":
      return `${e.title ? "" : "test for the first book: "}${f.outcome === "pass" ? "passed" : f.outcome}`;
    case "activity_done":
      return f.outcome === "pass" ? "exit test passed" : f.outcome === "nearly" ? "nearly" : "not yet";
    case "activity_asked":
      return "asked for again";
    case "lesson_length":
      return `plan set to ${plural(f.minutes, "minute")}`;
    case "block_timed":
      return `a block set to ${plural(f.minutes, "minute")}`;
    case "block_swapped":
    case "block_moved":
    case "block_dropped":
    case "block_added":
      return "plan changed";
    case "seat_measured":
      return "measured for the seat";
    case "played_in":
      return `played in: ${e.point ? `${e.point} ` : ""}${figureNames[f.figure]}${f.holds ? ", it held" : ""}`;
    case "echoed":
      return `listened and answered, ${e.point}: ${f.right} of ${f.asked} right, level ${f.level}${f.passed ? ", exit test passed" : ""}`;
    case "mood_seen":
      return `mood: ${f.mood}`;
    case "went_well":
      return `went well: ${f.text}`;
    case "talked":
      return `check-in${f.agreed ? `, agreed: ${f.agreed}` : ""}`;
    case "noted":
      return f.text;
    case "seen":
      return `seen: ${e.point || f.fault}`;
    case "pained":
      return `pain told: ${f.side}${f.where ? `, ${f.where}` : ""}`;
    case "pain_cleared":
      return "pain cleared by a clinician";
    case "days_set":
      return `days of practice set${f.minutes ? `, ${plural(f.minutes, "minute")}` : ""}`;
    case "question_asked":
      return `the family asks: ${f.text}`;
    case "question_answered":
      return "question answered";
    case "tripped":
      return `tripped at home: ${f.where}`;
    case "ticked":
      return `ticked at home, ${shortDay(f.day)}`;
    case "treat_set":
      return `the family counts ${f.counts} towards: ${f.name}`;
    case "treat_dropped":
      return "no treat is counted towards any more";
    case "lesson_missed":
      return `lesson cancelled${f.by ? cancelled[f.by] : ""}, ${shortDay(f.day)}`;
    case "lesson_moved":
      return `lesson moved to ${shortDay(f.to)}${f.start ? ` ${f.start}` : ""}`;
    case "lesson_extra":
      return `extra lesson, ${shortDay(f.day)}`;
    case "paused":
      return `pauses from ${shortDay(f.from)}${f.until ? ` until ${shortDay(f.until)}` : ""}`;
    case "left":
      return `left, ${shortDay(f.day)}`;
    case "returned":
      return `comes again from ${shortDay(f.day)}`;
    case "lesson_remote":
      return f.remote ? "lesson from afar" : "lesson in the room";
    case "lesson_rated":
      return `the lesson ${ratings[f.rating]}`;
    case "before_book":
      return "begins before the first book";
    case "book_chosen":
      return `book chosen: ${f.book}`;
    case "book_dropped":
      return `book dropped: ${f.book}`;
    case "target_set":
      return `to be polished by ${shortDay(f.day)}`;
    case "target_dropped":
      return "date taken off";
    case "taste_asked":
      return `likes ${f.taste} pieces`;
    case "approach_set":
      return `approach, ${f.question}: ${f.school}`;
    case "overruled":
      return f.until === "later" ? "suggestion put off" : "suggestion turned down";
    case "practised":
      return ["practised at home", f.minutes && plural(f.minutes, "minute"), f.felt && `felt ${f.felt}`]
        .filter(Boolean)
        .join(", ");
    case "played":
      return "played at home";
    case "lesson_opened":
      return "lesson begun";
    case "lesson_closed":
      return "lesson closed";
    case "retracted":
      return "taken back";
  }
}

// ratings are how a lesson went for the teacher.
export const ratings = { flowed: "flowed", mixed: "went in parts", uphill: "was uphill" } as const;
