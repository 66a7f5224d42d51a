import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { shortDay } from "../../parts/dates";
import { say } from "../../words/say";

type Series = Schemas["PlayedSeries"];
type Props = { student: string; played: Series[] };

const figureNames: Record<Series["figure"], string> = {
  heft: say("record.strengthOverOthers"),
  late: say("record.millisecondsLate"),
  lope: say("record.longShort"),
  drift: say("record.figure-drift"),
  spread: say("record.figure-spread"),
  apart: say("record.millisecondsApart"),
  slips: say("record.figure-slips"),
  off: say("record.millisecondsOff"),
};

const written = (figure: Series["figure"], value: number) => {
  if (figure === "drift" || figure === "spread") return `${(100 * value).toFixed(1)} %`;
  if (figure === "lope") return value.toFixed(2);
  return `${figure === "heft" && value > 0 ? "+" : ""}${Math.round(value)}`;
};

// Played follows what was played in from time to time: by each, the figure and the finger that were named
// most often, take by take.
export function Played({ student, played }: Props) {
  if (played.length === 0) return null;
  return (
    <section aria-label={say("record.playedIn")} className="mt-5">
      <h2 className="mb-1.5">{say("record.playedIn")}</h2>
      <ul className="grid gap-2">
        {played.map((s) => (
          <li key={s.rung + s.asked} className="rounded bg-raised px-3 py-2">
            <p className="flex flex-wrap items-baseline gap-x-2">
              <b className="font-[620]">{s.title}</b>
              <span className="text-soft">
                {s.finger && `${s.finger}, `}
                {figureNames[s.figure]}
              </span>
              {!s.asked.startsWith("tap ") && (
                <Link
                  to="/workbench/exercises"
                  search={{ student, exercise: s.asked }}
                  className="ml-auto inline-block min-h-6 underline underline-offset-4"
                >
                  {say("record.again")}
                </Link>
              )}
            </p>
            <Course series={s} />
          </li>
        ))}
      </ul>
    </section>
  );
}

// Course draws the takes of a series beside each other, a bar each, with its day and what was said first.
function Course({ series }: { series: Series }) {
  const takes = series.takes.slice(-8);
  const base = series.figure === "lope" ? 1 : 0;
  const most = Math.max(...takes.map((t) => Math.abs(t.value - base)), 1e-6);
  return (
    <ol className="mt-1.5 grid gap-1">
      {takes.map((t) => (
        <li key={t.at} className="grid grid-cols-[3.6rem_4rem_1fr] items-center gap-2">
          <span className="text-soft">{shortDay(t.at.slice(0, 10))}</span>
          <span aria-hidden="true" className="h-2.5 rounded bg-faint">
            <span
              className={`block h-full rounded ${t.even ? "bg-keep" : "bg-now"}`}
              style={{ width: `${(100 * Math.abs(t.value - base)) / most}%` }}
            />
          </span>
          <span>
            <b className="font-[620]">{written(series.figure, t.value)}</b>{" "}
            <span className="text-soft">{t.why.says}</span>
          </span>
        </li>
      ))}
    </ol>
  );
}
