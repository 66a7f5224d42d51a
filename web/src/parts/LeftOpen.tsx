import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { namedDay } from "./words";

const shown = 4;

// LeftOpen asks after lessons of days before that are not closed, each one touch away.
export function LeftOpen({ open }: { open: Schemas["OpenLesson"][] }) {
  const [all, showAll] = useState(false);
  if (open.length === 0) return null;
  return (
    <nav
      aria-label={say("parts.lessonsNotClosed")}
      className="screen-only flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-now-tint px-4 py-1.5"
    >
      <b className="font-[620]">
        {open.length === 1 ? say("parts.notClosedYet") : say("parts.lessonsNotClosed2", { open: open.length })}
      </b>
      {open.slice(all ? 0 : -shown).map((o) => (
        <Link
          key={o.student + o.day}
          to="/students/$student/lesson"
          params={{ student: o.student }}
          search={{ day: o.day }}
          className="underline underline-offset-4"
        >
          {o.name}, {namedDay(o.day)}
          {o.begun ? say("parts.begun") : say("parts.given")}
        </Link>
      ))}
      {open.length > shown && (
        <button
          type="button"
          aria-expanded={all}
          className="underline underline-offset-4"
          onClick={() => showAll(!all)}
        >
          {all ? say("parts.fewer") : say("parts.andBefore", { n: open.length - shown })}
        </button>
      )}
    </nav>
  );
}
