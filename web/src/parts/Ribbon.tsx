import { Link, useParams, useRouterState } from "@tanstack/react-router";
import type { Schemas } from "../api/client";
import { useMinutes } from "../api/clock";
import { say } from "../words/say";
import { clock, minutesOf, namedDay, timeOfDay } from "./dates";

const places = ["ladder", "lesson", "week", "record"] as const;
const wide = "order-last w-full flex-none border-t border-line";

const many = 6; // lessons, from which the ribbon takes the whole width so that names can be read
const few = 3; // lessons, up to which it shows the whole afternoon

// The Ribbon is a teaching day to scale: each lesson as long as it lasts, gaps left as
// gaps, now marked. It leads to a student's same place as the one that is open.
export function Ribbon({ day }: { day: Schemas["DayView"] }) {
  const tick = useMinutes();
  const { student } = useParams({ strict: false });
  const path = useRouterState({ select: (s) => s.location.pathname.split("/")[3] });
  const place = places.find((p) => p === path) ?? "lesson";
  const clockNow = minutesOf(clock(new Date(tick * 60_000), day.zone));
  const starts = day.segments.map((s) => minutesOf(s.start));
  const ends = day.segments.map((s) => minutesOf(s.start) + s.minutes);
  const first = Math.min(...starts, ...(starts.length > few ? [] : [15 * 60]));
  const last = Math.max(...ends, ...(ends.length > few ? [] : [18 * 60]));
  const full = day.segments.length > many;
  const near = full ? 15 : 90; // minutes before the first lesson and after the last in which now stands on it
  const now = day.date === day.today && clockNow > first - near && clockNow < last + near ? clockNow : undefined;
  const step = 15;
  const margin = full ? 1 : 10;
  const from = Math.floor((Math.min(now ?? first, first) - margin) / step) * step;
  const to = Math.ceil((Math.max(now ?? last, last) + margin) / step) * step;
  const at = (m: number) => `${((m - from) / (to - from)) * 100}%`;
  const hours = [];
  for (let h = Math.ceil(from / 60) * 60; h <= to; h += 60) hours.push(h);
  return (
    <nav
      aria-label={
        day.date === day.today ? say("parts.lessonsToday") : say("parts.lessonsOn", { day: namedDay(day.date) })
      }
      className={`relative min-h-[68px] min-w-80 flex-1 ${full ? wide : "max-lg:order-last max-lg:w-full max-lg:flex-none"}`}
    >
      {day.segments.length === 0 && (
        <p className="absolute inset-x-0 top-3 text-center text-soft">
          {day.date === day.today ? say("parts.noLessonsToday") : say("parts.noLessonsDay")}
          {day.free && `: ${day.free}`}
        </p>
      )}
      {hours
        .filter((h) => h > from + 10 && h < to - 10)
        .map((h) => (
          <span key={h} className="absolute bottom-0.5 -translate-x-1/2 text-small text-soft" style={{ left: at(h) }}>
            {timeOfDay(`${String(h / 60).padStart(2, "0")}:00`)}
          </span>
        ))}
      {day.segments.map((s) => {
        const start = minutesOf(s.start);
        const on = s.student === student;
        const done = day.date < day.today || (now ?? (clockNow < first ? 0 : 24 * 60)) >= start + s.minutes;
        return (
          <Link
            key={s.student}
            to={`/students/$student/${place}`}
            params={{ student: s.student }}
            search={place === "lesson" && day.date < day.today ? { day: day.date } : {}}
            aria-label={say("parts.minutes2", { name: s.name, time: timeOfDay(s.start), minutes: s.minutes })}
            aria-current={on ? "true" : undefined}
            className={`absolute top-2 h-9 rounded-sm border-l-[3px] py-1.5 whitespace-nowrap ${s.minutes < 25 ? "px-px text-small leading-6 tracking-tighter" : full ? "overflow-hidden px-1 tracking-tight" : "overflow-hidden px-1.5 max-xl:px-1 max-xl:tracking-tight"} ${
              on
                ? "border-now bg-ink font-[620] text-raised"
                : `border-soft bg-faint hover:bg-line ${done ? "text-soft" : ""}`
            }`}
            style={{ left: at(start), width: `calc(${at(start + s.minutes)} - ${at(start)} - 2px)` }}
          >
            {s.name}
          </Link>
        );
      })}
      {now !== undefined && day.segments.length > 0 && (
        <span aria-hidden="true" className="absolute inset-y-0 w-[3px] bg-now" style={{ left: at(now) }} />
      )}
    </nav>
  );
}
