import { Link, Outlet } from "@tanstack/react-router";
import { lazy, Suspense, useState } from "react";
import { useDay } from "../api/views";
import { Back } from "./Back";
import { Key } from "./Button";
import { useKeys } from "./keys";
import { LeftOpen } from "./LeftOpen";
import { Ribbon } from "./Ribbon";
import { Sending } from "./Sending";
import { Shown } from "./Told";
import { plural } from "./words";

const Search = lazy(() => import("./Search").then((m) => ({ default: m.Search }))); // when it is first asked

// The Frame is the day: its ribbon on top, the rest below.
export function Frame() {
  const query = useDay();
  const [searching, search] = useState(false);
  useKeys({ "/": () => search(true), "mod+k": () => search(true) });
  return (
    <div className="flex min-h-dvh flex-col print:block">
      <Shown query={query}>
        {(day) => (
          <>
            <header className="screen-only flex flex-wrap items-stretch border-b border-line bg-raised">
              <Link to="/" className="w-40 px-4 py-2.5 leading-tight">
                <span className="block font-[650]">{dayName(day.now, day.zone)}</span>
                <span className="text-small text-soft">
                  {day.week ? `week ${day.week} of ${day.weekOf}` : day.free || plural(day.segments.length, "lesson")}
                </span>
              </Link>
              <Ribbon day={day} />
              <nav aria-label="Studio" className="ml-auto flex items-center gap-1 px-3 font-[580]">
                <button
                  type="button"
                  onClick={() => search(true)}
                  className="flex items-center gap-2 rounded px-3 py-2 hover:bg-faint"
                >
                  Search <Key>/</Key>
                </button>
                {[
                  { to: "/sheets", name: "Sheets" },
                  { to: "/shelf", name: "Shelf" },
                  { to: "/workbench", name: "Workbench" },
                  { to: "/studio", name: "Studio" },
                ].map((l) => (
                  <Link
                    key={l.to}
                    to={l.to}
                    className="rounded px-3 py-2 hover:bg-faint"
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
      <Outlet />
      <Back />
      {searching && (
        <Suspense>
          <Search open={searching} set={search} />
        </Suspense>
      )}
    </div>
  );
}

function dayName(now: string, zone: string) {
  return new Intl.DateTimeFormat("en-GB", { weekday: "short", day: "numeric", month: "short", timeZone: zone })
    .format(new Date(now))
    .replace(",", "");
}
