import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { shortDay } from "./dates";
import { felts } from "./felts";

export * from "./dates";

// notKept says what a reader of files did not keep, and where it first stood.
export const notKept = (list: Schemas["Unread"][]) =>
  list
    .map(
      (u) =>
        `${u.what}, ${u.bar ? say("parts.bar", { bar: u.bar }) : "head"}${u.count > 1 ? ` ${say("parts.andMore", { n: u.count - 1 })}` : ""}`,
    )
    .join("; ");

// weeks writes a number of weeks as a teacher would say it.
export function weeks(n: number): string {
  if (n < 1) return say("parts.underWeek");
  return say("count.week", { n: Math.round(n) });
}

// span writes a range of weeks: "2–4 weeks".
export function span(low: number, high: number): string {
  const [a, b] = [Math.max(1, Math.round(low)), Math.max(1, Math.round(high))];
  if (a > foreseen) return say("parts.moreThanTwoYears");
  if (b > foreseen) return say("parts.weeksMoreThanTwoYears", { a });
  return a === b ? say("count.week", { n: a }) : say("parts.weeks", { a, b });
}

// foreseen is the longest time that is told in weeks.
const foreseen = 104;

export type Grade = Extract<Schemas["FactBody"], { kind: "heard" }>["grade"];

export const grades: Record<Grade, string> = {
  "fell-apart": say("parts.notYet2"),
  rough: say("parts.shaky"),
  fine: say("parts.good"),
  easily: say("parts.easyGrade"),
};

// slopes are how hard a piece is for a student.
export const slopes: Record<Schemas["Load"]["slope"], string> = {
  climb: say("parts.challenging"),
  step: say("parts.aboutRight"),
  landing: say("parts.easy"),
};

export const strandNames: Record<string, string> = {
  book: say("parts.methodBook"),
  technique: say("parts.technique"),
  reading: say("parts.readingTheory"),
  repertoire: say("parts.repertoire"),
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
  even: say("parts.even"),
  slips: say("parts.slips"),
  stops: say("parts.stops"),
  lope: say("parts.itLopes"),
  drift: say("parts.tempoDrifts"),
  spread: say("parts.uneven"),
  late: say("parts.late"),
  early: say("parts.early"),
  strong: say("parts.tooStrong"),
  weak: say("parts.tooWeak"),
  apart: say("parts.handsAreApart"),
  scatter: say("parts.handsFallApart"),
};

const cancelled = {
  student: say("parts.byTheStudent"),
  teacher: say("parts.byTheTeacher"),
  illness: say("parts.forIllness"),
};

// outcome is how something that was tried went.
const outcome = (o: string) =>
  o === "pass" ? say("parts.passedIt") : o === "nearly" ? say("parts.nearly") : say("parts.notYet2");

// tellOf says what a fact told, without its piece.
export function tellOf(e: Schemas["Entry"]): string {
  const f = e.fact.body;
  switch (f.kind) {
    case "rung_added":
      return f.parked ? say("parts.leftOutLadder") : say("parts.placedLadder");
    case "rung_moved":
      return say("parts.movedLadder");
    case "rung_revised":
      return say("parts.pointsPartsTakenOverFrom");
    case "rung_parked":
      return say("parts.putOnHold");
    case "rung_resumed":
      return say("parts.takenUpAgain");
    case "taught":
      return say("parts.hadLesson");
    case "point_held":
      return say("parts.heldMind", { point: e.point });
    case "point_marked":
      return f.state === "met"
        ? say("parts.pointReached", { point: e.point })
        : say("parts.pointNotYet", { point: e.point });
    case "self_judged":
      return say("parts.studentSays", { value: e.point ? `${e.point}: ` : "", says: f.says });
    case "own_point":
      return say("parts.goalEveryPiece", { name: f.name });
    case "spot_noted":
      return say("parts.trickySpotAimRow", { where: f.where, goal: f.goal });
    case "spot_drilled":
      return say("parts.spotRow", { point: e.point, run: f.run });
    case "line_struck":
      return say("parts.lineRemovedFromSheet");
    case "line_changed":
      return say("parts.lineSheetChanged");
    case "line_moved":
      return say("parts.lineSheetMoved", { to: f.to });
    case "line_pinned":
      return say("parts.lineSheetPinned");
    case "line_added":
      return say("parts.onTheSheet", { text: f.text });
    case "sheet_noted":
      return say("parts.toTheFamily", { text: f.text });
    case "count_kept":
      return say("parts.numberTimesKeptSheetsCome");
    case "sort_kept":
      return say("parts.kindLineSuggestedAgain");
    case "card_answered":
      return say("parts.card", {
        card: f.card,
        value:
          f.outcome === "pass"
            ? say("parts.right")
            : f.outcome === "nearly"
              ? say("parts.nearly")
              : say("parts.notYet2"),
      });
    case "foothold_tried":
      if (e.note === "refused") return say("parts.playedThroughTooEarlyNo");
      if (f.outcome !== "granted") return say("parts.playedThroughNotYet", { value: f.note ? `: ${f.note}` : "" });
      return say("parts.markedLearnt", { value: f.part ? `, ${f.part}` : "" });
    case "polished":
      return say("parts.performanceReady");
    case "heard":
      return say("parts.heardGrade", { grade: grades[f.grade] });
    case "opened_with":
      return say("parts.chosenOpenWith");
    case "prepared":
      return say("parts.preparationStep", { point: e.point, step: f.step });
    case "probed":
      return `${e.title ? "" : say("parts.testFirstBook")}${outcome(f.outcome)}`;
    case "activity_done":
      return outcome(f.outcome);
    case "activity_asked":
      return say("parts.askedAgain");
    case "lesson_length":
      return say("parts.planSetMinutes", { minutes: f.minutes });
    case "block_timed":
      return say("parts.partSetTo", { minutes: f.minutes });
    case "block_swapped":
    case "block_moved":
    case "block_dropped":
    case "block_added":
      return say("parts.planChanged");
    case "seat_measured":
      return say("parts.measuredSeat");
    case "played_in":
      return say("parts.playedIn", {
        value: e.point ? `${e.point} ` : "",
        figure: figureNames[f.figure],
        more: f.holds ? say("parts.itHeld") : "",
      });
    case "echoed":
      return say("parts.listenedAnsweredRightLevel", {
        point: e.point,
        right: f.right,
        asked: f.asked,
        level: f.level,
        value: f.passed ? say("parts.andPassed") : "",
      });
    case "mood_seen":
      return say("parts.mood", { mood: f.mood });
    case "went_well":
      return say("parts.wentWell", { text: f.text });
    case "talked":
      return say("parts.checkIn", { agreed: f.agreed ? say("parts.agreed", { agreed: f.agreed }) : "" });
    case "noted":
      return f.text;
    case "seen":
      return say("parts.seen", { what: e.point || f.fault });
    case "pained":
      return say("parts.painTold", { side: f.side, value: f.where ? `, ${f.where}` : "" });
    case "pain_cleared":
      return say("parts.painClearedClinician");
    case "days_set":
      return say("parts.daysPracticeSet", { value: f.minutes ? `, ${say("count.minute", { n: f.minutes })}` : "" });
    case "question_asked":
      return say("parts.familyAsks", { text: f.text });
    case "question_answered":
      return say("parts.questionAnswered");
    case "tripped":
      return say("parts.trippedHome", { where: f.where });
    case "ticked":
      return say("parts.tickedHome", { day: shortDay(f.day) });
    case "treat_set":
      return say("parts.familyCountsTowards", { counts: f.counts, name: f.name });
    case "treat_dropped":
      return say("parts.noTreatCountedTowardsAny");
    case "lesson_missed":
      return say("parts.lessonCancelled", { value: f.by ? cancelled[f.by] : "", day: shortDay(f.day) });
    case "lesson_moved":
      return say("parts.lessonMoved", { day: shortDay(f.to), value: f.start ? ` ${f.start}` : "" });
    case "lesson_extra":
      return say("parts.extraLesson", { day: shortDay(f.day) });
    case "paused":
      return say("parts.pausesFrom", {
        day: shortDay(f.from),
        value: f.until ? ` ${say("parts.until", { day: shortDay(f.until) })}` : "",
      });
    case "left":
      return say("parts.leftOn", { day: shortDay(f.day) });
    case "returned":
      return say("parts.comesAgainFrom", { day: shortDay(f.day) });
    case "lesson_remote":
      return f.remote ? say("parts.lessonFromAfar") : say("parts.lessonRoom");
    case "lesson_rated":
      return say("parts.theLesson", { ratings: ratings[f.rating] });
    case "before_book":
      return say("parts.beginsBeforeFirstBook");
    case "book_chosen":
      return say("parts.bookChosen", { book: f.book });
    case "book_dropped":
      return say("parts.bookDropped", { book: f.book });
    case "target_set":
      return say("parts.toBePolishedBy", { day: shortDay(f.day) });
    case "target_dropped":
      return say("parts.dateTakenOff");
    case "taste_asked":
      return say("parts.likesPieces", { taste: f.taste });
    case "approach_set":
      return say("parts.approachSet", { question: f.question, school: f.school });
    case "overruled":
      return f.until === "later" ? say("parts.suggestionPutOff") : say("parts.suggestionTurnedDown");
    case "practised":
      return [
        say("parts.practisedHome"),
        f.minutes && say("count.minute", { n: f.minutes }),
        f.felt && say("parts.felt", { felt: felts[f.felt] }),
      ]
        .filter(Boolean)
        .join(", ");
    case "played":
      return say("parts.playedHome");
    case "lesson_opened":
      return say("parts.lessonBegun");
    case "lesson_closed":
      return say("parts.lessonClosed");
    case "retracted":
      return say("parts.takenBack");
  }
}

// ratings are how a lesson went for the teacher.
export const ratings = {
  flowed: say("parts.flowed"),
  mixed: say("parts.wentParts"),
  uphill: say("parts.wasUphill"),
} as const;

// note writes F#4 as F sharp.
export const note = (n = "") =>
  n
    .replace(/\d+$/, "")
    .replace("##", say("parts.doubleSharp"))
    .replace("#", say("parts.sharp"))
    .replace(/(?<=.)bb$/, say("parts.doubleFlat"))
    .replace(/(?<=.)b$/, say("parts.flat"));
