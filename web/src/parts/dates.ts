import { prefs, timeOfDay } from "./prefs";

export { timeOfDay };

// Dates are written as the language of the page writes them.
const locale = globalThis.document?.documentElement.lang || "en-GB";

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

// dayAfter is the day so many days after a day.
export const dayAfter = (date: string, days: number) =>
  new Date(utc(date).getTime() + days * 86_400_000).toISOString().slice(0, 10);

// Days of the week, 0 for Sunday, in full and short.
const ofWeek = (way: "long" | "short") =>
  Array.from({ length: 7 }, (_, i) =>
    new Intl.DateTimeFormat(locale, { weekday: way, timeZone: "UTC" }).format(Date.UTC(2026, 1, 1 + i)),
  );
export const weekdays = ofWeek("long");
export const weekdaysShort = ofWeek("short");

// weekdayOf is the short name of a date's day.
export const weekdayOf = (date: string) => weekdaysShort[utc(date).getUTCDay()] ?? "";

export const weekOrder = prefs.week === "sunday" ? [0, 1, 2, 3, 4, 5, 6] : [1, 2, 3, 4, 5, 6, 0];

// minutesOf is how many minutes of its day a time such as 15:04 is past midnight.
export const minutesOf = (hhmm: string) => Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3, 5));

// time writes the time of day of a moment in the studio's zone, as this device has it.
export const time = (at: string | Date, zone: string) => timeOfDay(clock(at, zone));

// clock is the time of day of a moment in the studio's zone: 15:04.
export const clock = (at: string | Date, zone: string) =>
  new Intl.DateTimeFormat(locale, { hour: "2-digit", minute: "2-digit", timeZone: zone }).format(new Date(at));

// months by name.
export const months = Array.from({ length: 12 }, (_, i) =>
  new Intl.DateTimeFormat(locale, { month: "long", timeZone: "UTC" }).format(Date.UTC(2026, i, 1)),
);
