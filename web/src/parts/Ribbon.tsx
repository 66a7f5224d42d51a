import { Link, useParams } from "@tanstack/react-router";
import type { Schemas } from "../api/client";
import { useMinutes } from "../api/clock";
import { clock, minutesOf } from "./dates";

// The Ribbon is the teaching day to scale: each lesson as long as it lasts,
// gaps left as gaps, now marked.
export function Ribbon({ day }: { day: Schemas["DayView"] }) {
  const tick = useMinutes();
  const { student } = useParams({ strict: false });
  const now = minutesOf(clock(new Date(tick * 60_000), day.zone));
  const starts = day.segments.map((s) => minutesOf(s.start));
  const ends = day.segments.map((s) => minutesOf(s.start) + s.minutes);
  const from = Math.floor((Math.min(now, ...starts, 15 * 60) - 20) / 60) * 60;
  const to = Math.ceil((Math.max(now, ...ends, 18 * 60) + 20) / 60) * 60;
  const at = (m: number) => `${((m - from) / (to - from)) * 100}%`;
  const hours = [];
  for (let h = from; h <= to; h += 60) hours.push(h);
  return (
    <nav
      aria-label="Lessons today"
      className="relative min-h-[68px] min-w-80 flex-1 max-lg:order-last max-lg:w-full max-lg:flex-none"
    >
      {day.segments.length === 0 && (
        <p className="absolute inset-x-0 top-3 text-center text-soft">No lessons today{day.free && `: ${day.free}`}</p>
      )}
      {hours.slice(1, -1).map((h) => (
        <span key={h} className="absolute bottom-0.5 -translate-x-1/2 text-small text-soft" style={{ left: at(h) }}>
          {h / 60}:00
        </span>
      ))}
      {day.segments.map((s) => {
        const start = minutesOf(s.start);
        const on = s.student === student;
        const done = start + s.minutes <= now;
        return (
          <Link
            key={s.student}
            to="/students/$student/lesson"
            params={{ student: s.student }}
            aria-label={`${s.name}, ${s.start}, ${s.minutes} minutes`}
            aria-current={on ? "true" : undefined}
            className={`absolute top-2 h-9 rounded-sm border-l-[3px] py-1.5 whitespace-nowrap ${s.minutes < 25 ? "px-px text-small leading-6 tracking-tighter" : "overflow-hidden px-2"} ${
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
      <span aria-hidden="true" className="absolute inset-y-0 w-[3px] bg-now" style={{ left: at(now) }} />
    </nav>
  );
}
