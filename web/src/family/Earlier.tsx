import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { longDay } from "../parts/dates";
import { say } from "../words/say";
import { pastView } from "./view";

// Earlier lists the sheets of before, each with what was asked and how often it was ticked.
// They are fetched when it is opened.
export function Earlier({ token }: { token: string }) {
  const [open, setOpen] = useState(false);
  const query = useQuery({ ...pastView(token), enabled: open });
  return (
    <details className="mx-4 mt-6" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer text-head font-[650]">{say("family.earlierWeeks")}</summary>
      {query.error && <p className="text-soft">{say("family.theyCannotFetchedJustNow")}</p>}
      {query.data?.weeks.length === 0 && <p className="text-soft">{say("family.firstSheet")}</p>}
      {query.data?.weeks.map((w) => (
        <details key={w.day} className="border-b border-line py-1">
          <summary className="min-h-11 cursor-pointer">{longDay(w.day)}</summary>
          <ul className="space-y-1.5 pb-2">
            {w.lines.map((l) => (
              <li key={l.key}>
                <b className="font-[620]">{l.title}</b>: {l.says}
                <span className="block text-body text-soft">
                  {l.ticked === 0
                    ? say("family.notTicked")
                    : say("family.tickedDays", { ticked: l.ticked, days: l.days })}
                </span>
              </li>
            ))}
          </ul>
        </details>
      ))}
    </details>
  );
}
