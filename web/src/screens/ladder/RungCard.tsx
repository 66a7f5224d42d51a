import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { namedDay, plural, sentence, span } from "../../parts/words";
import type { Rung } from "./layout";

type Props = { rung: Rung; view: Schemas["LadderView"]; close: () => void };

// RungCard tells all of one rung and lets the teacher move it.
export function RungCard({ rung, view, close }: Props) {
  const student = view.student.id;
  const lane = view.rungs.filter((r) => r.strand === rung.strand);
  const i = lane.findIndex((r) => r.id === rung.id);
  const movable = rung.state === "ahead" || rung.state === "current" || rung.state === "parked";
  const up =
    movable && i < lane.length - 1
      ? () => tell({ student, kind: "rung_moved", rung: rung.id, after: lane[i + 1]?.id })
      : undefined;
  const below = lane[i - 1];
  const down =
    movable && below && below.state !== "secure"
      ? () => tell({ student, kind: "rung_moved", rung: rung.id, after: lane[i - 2]?.id })
      : undefined;
  const park =
    rung.state === "parked"
      ? () => tell({ student, kind: "rung_resumed", rung: rung.id })
      : movable
        ? () => tell({ student, kind: "rung_parked", rung: rung.id })
        : undefined;
  const polish =
    rung.state === "secure" && !rung.polished ? () => tell({ student, kind: "polished", rung: rung.id }) : undefined;
  useKeys({ "[": down, "]": up, p: park, m: polish, Escape: close });
  return (
    <article className="space-y-3 rounded border border-line bg-raised p-4">
      <header>
        <h3 className="text-large">{rung.title}</h3>
        <p className="text-soft">{stateLine(rung)}</p>
      </header>
      {rung.expected && (
        <p>
          {rung.taught ? "Likely done" : "Likely begun in turn and done"}{" "}
          {rung.expected.low && rung.expected.high ? (
            <>
              between <b>{namedDay(rung.expected.low)}</b> and <b>{namedDay(rung.expected.high)}</b>
            </>
          ) : (
            "after this year's terms"
          )}
          : eight in ten such pieces take {span(rung.expected.whole.low, rung.expected.whole.high)} at this pace.
        </p>
      )}
      {rung.brings.length > 0 && <p>New here: {rung.brings.join(", ")}.</p>}
      {rung.state === "current" && (
        <ul className="divide-y divide-faint border-y border-faint">
          {rung.points.map((p) => (
            <li key={p.key} className="flex justify-between py-1">
              <span>
                {p.name}
                {p.own && <span className="text-soft"> · own</span>}
              </span>
              <span className="text-soft">
                {p.state === "met"
                  ? `met${p.since ? ` ${namedDay(p.since)}` : ""}`
                  : p.state === "open"
                    ? "not yet"
                    : "–"}
              </span>
            </li>
          ))}
          {rung.spots.map((s) => (
            <li key={s.id} className="flex justify-between py-1">
              <span>Spot, {s.where}</span>
              <span className="text-soft">
                {s.done} of {s.goal} in a row
              </span>
            </li>
          ))}
        </ul>
      )}
      {rung.lastTry?.why && <p>Last try turned back. {sentence(rung.lastTry.why)}</p>}
      <div className="flex flex-wrap gap-2">
        {up && (
          <Button hint="]" onClick={up}>
            Later
          </Button>
        )}
        {down && (
          <Button hint="[" onClick={down}>
            Sooner
          </Button>
        )}
        {park && (
          <Button hint="P" onClick={park}>
            {rung.state === "parked" ? "Take up again" : "Park"}
          </Button>
        )}
        {polish && (
          <Button hint="M" onClick={polish}>
            Polished, ready to perform
          </Button>
        )}
        {rung.hasScore && (
          <Link
            to="/items/$item"
            params={{ item: rung.item }}
            className="rounded px-3 py-2 font-[620] underline underline-offset-4"
          >
            See the score
          </Link>
        )}
        <Button look="quiet" hint="Esc" onClick={close}>
          Close
        </Button>
      </div>
    </article>
  );
}

function stateLine(r: Rung) {
  switch (r.state) {
    case "secure":
      return `${r.polished ? "Polished. " : ""}Foothold ${r.foothold ? namedDay(r.foothold) : ""} after ${r.weeks < 1 ? "its first lesson" : plural(r.weeks, "taught week")}; last heard ${r.silent === 0 ? "today" : `${plural(r.silent, "day")} ago`}`;
    case "current":
      return r.taught ? `First taught ${namedDay(r.taught)}` : "Current; waits for its first lesson";
    case "parked":
      return "Parked";
    default:
      return "Ahead";
  }
}
