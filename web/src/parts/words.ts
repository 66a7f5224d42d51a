import type { Schemas } from "../api/client";

type Reason = Schemas["Reason"];

// Every reason that core gives, as a sentence.
const sentences: Record<string, (a: Record<string, string>) => string> = {
  "not-taught": (a) => `${a.title} has not had its lesson yet, so a try comes too soon.`,
  "first-lesson": (a) => `${a.title} is next and waits for its first lesson.`,
  "ready-to-try": (a) =>
    a.weeks
      ? `Every point is met after ${plural(a.weeks, "taught week")}: let the student try for the foothold.`
      : `${a.title}: every point is met, ready to try for the foothold.`,
  "still-open": (a) => (a.count === "1" ? `Only ${a.first} is left.` : `${a.count} points are left; first ${a.first}.`),
  "plays-well": () => "Something played well opens the lesson.",
  fading: (a) =>
    `Last heard ${a.days === "0" ? "today" : `${plural(a.days ?? "", "day")} ago`}: about ${a.recall} in 100 that it still goes well.`,
  "comes-next": () => "A first taste of what comes next; success is not asked.",
  "nothing-placed": () => "Nothing is on the ladder yet. Place a piece from the shelf and the plan fills itself.",
  stretched: (a) => `Longer than the usual ${a.usual} minutes at this age: there was nothing else to fill the lesson.`,
  "too-short-for": (a) => `Left out, the lesson is too short: ${a.title || a.kind}.`,
  "past-its-range": (a) =>
    `In its week ${a.weeks}, longer than eight in ten would take. Split it smaller, check seat and hand, or put an easier piece first.`,
  "in-hand": (a) => `Working for ${a.missing}.`,
  "spot-count": (a) => `${a.title}: ${a.more}.`,
  "hear-it-early": (a) => `${a.title} comes next: hearing it now makes it lighter.`,
  "waits-for-its-lesson": (a) => `${a.title} waits for its lesson.`,
  "no-room-for": (a) => `No minutes left this week for ${a.title}.`,
  "a-pattern": () => "A pattern: the same each time, counted in a row.",
  "spot-first": (a) => `The spot first, while fresh: ${a.done} of ${a.goal} in a row so far.`,
  "hold-this": (a) => `The whole, with one thing in mind: ${a.point}.`,
  "join-two": () => "Two chunks you know, joined.",
  "small-first": () => "A small chunk by itself first.",
  "keep-alive": () => "An old friend: play it once so it stays.",
  "newest-kept": () => "Newly secure: it needs playing most often.",
  placed: (a) => `${a.title} was placed on the ladder.`,
  taught: (a) => `${a.title} had its first lesson.`,
  "point-met": (a) => `${a.title}: ${a.more} met.`,
  "point-open": (a) => `${a.title}: ${a.more} still open.`,
  foothold: (a) => `${a.title} has its foothold.`,
  "now-current": (a) => `${a.title} is now the current piece.`,
  "spot-carried": (a) => `${a.title}: the spot in ${a.where} is carried into the week.`,
};

export const sentence = (r: Reason) => sentences[r.code]?.(r.args) ?? r.code;

export const plural = (n: number | string, thing: string) => `${n} ${thing}${String(n) === "1" ? "" : "s"}`;

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

const locale = "en-GB";

const day = new Intl.DateTimeFormat(locale, { day: "numeric", month: "short", timeZone: "UTC" });
const weekday = new Intl.DateTimeFormat(locale, { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });
const weekdayLong = new Intl.DateTimeFormat(locale, {
  weekday: "long",
  day: "numeric",
  month: "long",
  timeZone: "UTC",
});

const utc = (date: string) => new Date(`${date.slice(0, 10)}T00:00:00Z`);

export const shortDay = (date: string) => day.format(utc(date));
export const namedDay = (date: string) => weekday.format(utc(date)).replace(",", "");
export const longDay = (date: string) => weekdayLong.format(utc(date));

// clock writes the time of day of a moment in the studio's zone.
export const clock = (at: string, zone: string) =>
  new Intl.DateTimeFormat(locale, { hour: "2-digit", minute: "2-digit", timeZone: zone }).format(new Date(at));

export const grades: Record<string, string> = {
  "fell-apart": "fell apart",
  rough: "rough",
  fine: "fine",
  easily: "easily",
};

export const readings: Record<string, string> = {
  direction: "reads by direction",
  landmarks: "reads from landmarks",
  names: "reads by names",
  ear: "ear first",
  tablature: "reads tablature",
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
      return f.outcome === "granted" ? `foothold granted${f.part ? `, ${f.part}` : ""}` : "tried, not yet";
    case "polished":
      return "polished";
    case "heard":
      return `heard: ${grades[f.outcome ?? ""] ?? f.outcome}`;
    case "opened_with":
      return "chosen to open with";
    case "practised":
      return `practised at home, ${f.minutes} minutes${f.text ? `, felt ${f.text}` : ""}`;
    case "lesson_opened":
      return "lesson begun";
    case "lesson_closed":
      return "lesson closed";
    default:
      return f.text ?? f.kind;
  }
}
