// Reads iCalendar files with a library that is not ours and prints their events as
// JSON, in order of time.
import { readFileSync } from "node:fs";
import ICAL from "ical.js";

const calendar = new ICAL.Component(ICAL.parse(readFileSync(process.argv[2], "utf8")));
const events = calendar.getAllSubcomponents("vevent").map((c) => {
  const e = new ICAL.Event(c);
  return {
    uid: e.uid,
    summary: e.summary,
    start: e.startDate.isDate ? e.startDate.toString() : e.startDate.toJSDate().toISOString(),
    end: e.endDate.isDate ? e.endDate.toString() : e.endDate.toJSDate().toISOString(),
  };
});
events.sort((a, b) => (a.start < b.start ? -1 : 1));
console.log(
  JSON.stringify({
    version: calendar.getFirstPropertyValue("version"),
    name: calendar.getFirstPropertyValue("x-wr-calname"),
    events,
  }),
);
