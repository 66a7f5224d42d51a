import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { calendarView } from "../../api/views";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { Feed } from "./Feed";
import { Moves } from "./Moves";
import { SlotForm } from "./SlotForm";
import { Spans } from "./Spans";
import { Week } from "./Week";

// CalendarScreen: the week's lessons to scale, what runs into what, terms and free
// days, moved lessons, and the calendar for other programs.
export function CalendarScreen() {
  const query = useQuery(calendarView);
  return <Shown query={query}>{(view) => <Calendar view={view} />}</Shown>;
}

function Calendar({ view }: { view: Schemas["CalendarView"] }) {
  const [picked, pick] = useState<string>();
  const slot = view.slots.find((s) => s.student === picked);
  return (
    <main className="space-y-4 px-4 pt-3 pb-6">
      <StudioPlaces />
      <h1 className="text-head">{say("calendar.teachingWeek")}</h1>
      {view.warnings.length > 0 && (
        <ul
          aria-label={say("calendar.toLookAt")}
          className="space-y-1 rounded border-l-4 border-warn bg-raised px-3 py-2"
        >
          {view.warnings.map((r) => (
            <li key={r.says}>{r.says}</li>
          ))}
        </ul>
      )}
      <Week slots={view.slots} picked={picked} pick={pick} />
      {slot ? (
        <SlotForm key={slot.student} slot={slot} done={() => pick(undefined)} />
      ) : (
        <p className="text-soft">{say("calendar.touchLessonGiveAnotherTime")}</p>
      )}
      <div className="grid items-start gap-4 lg:grid-cols-[1fr_420px]">
        <div className="space-y-4">
          <Moves view={view} />
          <Feed />
        </div>
        <Spans key={JSON.stringify([view.terms, view.free])} view={view} />
      </div>
    </main>
  );
}
