import { useQuery } from "@tanstack/react-query";
import { Link, Outlet } from "@tanstack/react-router";
import { lazy, Suspense, useState } from "react";
import type { Schemas } from "../api/client";
import { dayOfLessons, useDay } from "../api/views";
import { say } from "../words/say";
import { Back } from "./Back";
import { Key } from "./Button";
import { KeyList } from "./KeyList";
import { useKeys } from "./keys";
import { LeftOpen } from "./LeftOpen";
import { Ribbon } from "./Ribbon";
import { Sending } from "./Sending";
import { Title } from "./Title";
import { Shown } from "./Told";
import { dayAfter, namedDay } from "./words";

const Search = lazy(() => import("./Search").then((m) => ({ default: m.Search }))); // when it is first asked

// The Frame is the day: its ribbon on top, the rest below.
export function Frame() {
  const query = useDay();
  const [searching, search] = useState(false);
  const [asking, ask] = useState(false);
  useKeys({ "/": () => search(true), "mod+k": () => search(true), "?": () => ask(true) });
  return (
    <div className="flex min-h-dvh flex-col print:block">
      <a
        href="#content"
        className="sr-only z-20 rounded bg-ink px-4 py-2 text-raised focus:not-sr-only focus:fixed focus:top-2 focus:left-2"
      >
        {say("parts.whatPageAbout")}
      </a>
      <Shown query={query}>
        {(day) => (
          <>
            <Title day={day} />
            <header className="screen-only flex flex-wrap items-stretch border-b border-line bg-raised">
              <Lessons today={day} />
              <nav
                aria-label={say("parts.studio")}
                className="ml-auto flex flex-wrap items-center gap-1 px-3 font-[580]"
              >
                <button
                  type="button"
                  onClick={() => search(true)}
                  className="flex items-center gap-2 rounded px-2 py-2 hover:bg-faint xl:px-3"
                >
                  {say("parts.search")} <Key>/</Key>
                </button>
                {[
                  { to: "/sheets", name: say("parts.sheets") },
                  { to: "/shelf", name: say("parts.shelf") },
                  { to: "/workbench", name: say("parts.tools") },
                  { to: "/studio", name: say("parts.studio") },
                ].map((l) => (
                  <Link
                    key={l.to}
                    to={l.to}
                    className="rounded px-2 py-2 hover:bg-faint xl:px-3"
                    activeProps={{ className: "underline underline-offset-8" }}
                  >
                    {l.name}
                  </Link>
                ))}
              </nav>
            </header>
            <LeftOpen open={day.open} />
          </>
        )}
      </Shown>
      <Sending />
      <div id="content" tabIndex={-1} className="flex flex-1 flex-col outline-none print:block">
        <Outlet />
      </div>
      <Back />
      {asking && <KeyList close={() => ask(false)} />}
      {searching && (
        <Suspense>
          <Search open={searching} set={search} />
        </Suspense>
      )}
    </div>
  );
}

// Lessons are those of today, or of another day a key away.
function Lessons({ today }: { today: Schemas["DayView"] }) {
  const [shown, show] = useState<string>(); // none is today, whichever day that has become
  const date = shown ?? today.today;
  const other = useQuery({ ...dayOfLessons(date), enabled: date !== today.today });
  const day = date === today.today ? today : (other.data ?? today);
  const step = (days: number) => () => {
    const to = dayAfter(date, days);
    show(to === today.today ? undefined : to);
  };
  useKeys({ "<": step(-1), ">": step(1) });
  const arrow = "min-h-9 min-w-7 rounded px-1.5 text-soft hover:bg-faint hover:text-ink";
  return (
    <>
      <div className="flex items-center pr-1 pl-2">
        <button type="button" className={arrow} aria-label={say("parts.lessonsDayBefore")} onClick={step(-1)}>
          ‹
        </button>
        <Link
          to="/studio/today"
          search={date === today.today ? {} : { day: date }}
          className="w-28 px-1 py-2 leading-tight"
        >
          <span className="block font-[650]">{namedDay(day.date)}</span>
          <span className="text-small text-soft">
            {day.week
              ? say("parts.weekOf", { week: day.week, weeks: day.weekOf })
              : day.free || say("count.lesson", { n: day.segments.length })}
          </span>
        </Link>
        <button type="button" className={arrow} aria-label={say("parts.lessonsDayAfter")} onClick={step(1)}>
          ›
        </button>
        {date !== today.today && (
          <button type="button" className={`${arrow} underline`} onClick={() => show(undefined)}>
            {say("parts.today")}
          </button>
        )}
      </div>
      <Ribbon day={day} />
    </>
  );
}
