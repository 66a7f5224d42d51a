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
  return a === b ? plural(a, "week") : `${a}–${b} weeks`;
}

export const grades: Record<string, string> = {
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

// tellOf says what a fact told, without its piece.
export function tellOf(e: Schemas["Entry"]): string {
  const f = e.fact;
  switch (f.kind) {
    case "rung_added":
      return "placed on the ladder";
    case "rung_moved":
      return "moved on the ladder";
    case "rung_parked":
      return "parked";
    case "rung_resumed":
      return "taken up again";
    case "taught":
      return "had a lesson";
    case "point_held":
      return `${e.point} held in mind`;
    case "point_met":
      return `${e.point} met`;
    case "point_open":
      return `${e.point} not yet`;
    case "self_judged":
      return `${e.point ? `${e.point}: ` : ""}the student says ${f.outcome}`;
    case "own_point":
      return `standing point: ${f.text}`;
    case "spot_noted":
      return `spot noted: ${f.text}, ${f.count} in a row wanted`;
    case "spot_drilled":
      return `spot ${e.point}: ${f.count} in a row`;
    case "foothold_tried":
      if (e.note === "refused") return "a try, turned back: no lesson yet";
      if (f.outcome !== "granted") return `tried, not yet${f.text ? `: ${f.text}` : ""}`;
      return `foothold granted${f.part ? `, ${f.part}` : ""}`;
    case "polished":
      return "polished";
    case "heard":
      return `heard: ${grades[f.outcome ?? ""] ?? f.outcome}`;
    case "opened_with":
      return "chosen to open with";
    case "prepared":
      return `head start on ${e.point}, task ${f.count}`;
    case "probed":
      return `${e.title ? "" : "test for the first book: "}${f.outcome === "pass" ? "passed" : f.outcome}`;
    case "activity_done":
      return f.outcome === "pass" ? "exit test passed" : f.outcome === "nearly" ? "nearly" : "not yet";
    case "activity_asked":
      return "asked for again";
    case "plan_changed":
      return "plan changed";
    case "seat_measured":
      return "measured for the seat";
    case "mood_seen":
      return `mood: ${f.outcome}`;
    case "went_well":
      return `went well: ${f.text}`;
    case "seen":
      return `seen: ${e.point || f.text}`;
    case "pained":
      return `pain told: ${f.outcome}${f.text ? `, ${f.text}` : ""}`;
    case "pain_cleared":
      return "pain cleared by a clinician";
    case "days_set":
      return `days of practice set${f.minutes ? `, ${f.minutes} minutes` : ""}`;
    case "question_asked":
      return `the family asks: ${f.text}`;
    case "question_done":
      return "question answered";
    case "tripped":
      return `tripped at home: ${f.text}`;
    case "ticked":
      return `ticked at home${f.day ? `, ${shortDay(f.day)}` : ""}`;
    case "treat_set":
      return `the family counts ${f.outcome} towards: ${f.text}`;
    case "treat_dropped":
      return "no treat is counted towards any more";
    case "lesson_missed":
      return `lesson not given${f.day ? `, ${shortDay(f.day)}` : ""}`;
    case "lesson_moved":
      return `lesson moved${f.to ? ` to ${shortDay(f.to)}` : ""}${f.text ? ` ${f.text}` : ""}`;
    case "lesson_extra":
      return `extra lesson${f.day ? `, ${shortDay(f.day)}` : ""}`;
    case "lesson_remote":
      return f.outcome === "no" ? "lesson in the room" : "lesson from afar";
    case "before_book":
      return "begins before the first book";
    case "book_chosen":
      return `book chosen: ${f.text}`;
    case "book_dropped":
      return `book dropped: ${f.text}`;
    case "target_set":
      return `to be polished by ${f.day ? shortDay(f.day) : ""}`;
    case "target_dropped":
      return "date taken off";
    case "taste_asked":
      return `likes ${f.outcome} pieces`;
    case "approach_set":
      return `approach, ${f.text}: ${f.outcome}`;
    case "overruled":
      return f.outcome === "later" ? "suggestion put off" : "suggestion turned down";
    case "practised":
      if (e.title) return "played at home";
      return ["practised at home", f.minutes && plural(f.minutes, "minute"), f.text && `felt ${f.text}`]
        .filter(Boolean)
        .join(", ");
    case "lesson_opened":
      return "lesson begun";
    case "lesson_closed":
      return "lesson closed";
    default:
      return f.text ?? f.kind;
  }
}
