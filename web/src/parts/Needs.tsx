import { Link } from "@tanstack/react-router";
import type { Schemas } from "../api/client";
import { say } from "../words/say";

type Need = Schemas["Need"];

const sorts: Record<Need["sort"], string> = {
  pain: say("parts.need-pain"),
  heart: say("parts.need-heart"),
  stuck: say("parts.need-stuck"),
  try: say("parts.need-try"),
  date: say("parts.need-date"),
  landing: say("parts.need-landing"),
  practice: say("parts.atHome"),
  question: "asked",
  talk: say("parts.need-talk"),
  sheet: say("parts.need-sheet"),
  seat: say("parts.need-seat"),
};

const ink: Partial<Record<Need["sort"], string>> = {
  pain: "text-warn",
  heart: "text-warn",
  stuck: "text-warn",
  date: "text-now",
  try: "text-keep",
};

const places = {
  ladder: "/students/$student/ladder",
  lesson: "/students/$student/lesson",
  week: "/students/$student/week",
  record: "/students/$student/record",
} as const;

// Needs lists what a student needs, each leading to where it is seen to.
export function Needs({ student, needs }: { student: string; needs: Need[] }) {
  return (
    <ul>
      {needs.map((n) => {
        const says = (
          <>
            <span className={`inline-block w-24 shrink-0 font-[620] ${ink[n.sort] ?? ""}`}>{sorts[n.sort]}</span>
            <span className="flex-1">
              {n.rung && !n.why.says.includes(n.why.args.title ?? "") && (
                <b className="font-[620]">{n.why.args.title}: </b>
              )}
              {n.why.says}
            </span>
          </>
        );
        const look = "flex gap-2 rounded-sm px-1.5 py-1 hover:bg-faint";
        return (
          <li key={n.sort + n.why.says}>
            {n.place === "seat" ? (
              <Link to="/workbench" search={{ student }} className={look}>
                {says}
              </Link>
            ) : (
              <Link to={places[n.place]} params={{ student }} className={look}>
                {says}
              </Link>
            )}
          </li>
        );
      })}
    </ul>
  );
}
