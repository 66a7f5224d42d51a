import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { longDay, plural } from "../parts/dates";
import { pastView } from "./view";

// Earlier lists the sheets of before, each with what was asked and how often it was ticked.
// They are fetched when it is opened.
export function Earlier({ token }: { token: string }) {
  const [open, setOpen] = useState(false);
  const query = useQuery({ ...pastView(token), enabled: open });
  return (
    <details className="mx-4 mt-6" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer text-head font-[650]">Earlier weeks</summary>
      {query.error && <p className="text-soft">They cannot be fetched just now: try again with a connection.</p>}
      {query.data?.weeks.length === 0 && <p className="text-soft">This is the first sheet.</p>}
      {query.data?.weeks.map((w) => (
        <details key={w.day} className="border-b border-line py-1">
          <summary className="min-h-11 cursor-pointer">{longDay(w.day)}</summary>
          <ul className="space-y-1.5 pb-2">
            {w.lines.map((l) => (
              <li key={l.key}>
                <b className="font-[620]">{l.title}</b>: {l.says}
                <span className="block text-body text-soft">
                  {l.ticked === 0 ? "not ticked" : `ticked on ${l.ticked} of ${plural(l.days, "day")}`}
                </span>
              </li>
            ))}
          </ul>
        </details>
      ))}
    </details>
  );
}
