import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { act, may, tell } from "../../api/outbox";
import { offerBack } from "../../parts/Back";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { namedDay, plural, sentence, span, strandNames } from "../../parts/words";
import type { Rung } from "./layout";

type Props = { rung: Rung; view: Schemas["LadderView"]; close: () => void };

// RungCard tells all of one rung and lets the teacher move it.
export function RungCard({ rung, view, close }: Props) {
  const student = view.student.id;
  const offered = (code: string) => may(student, rung.acts, code);
  const andClose = (does?: () => void) =>
    does &&
    (() => {
      does();
      close();
    });
  const [up, down, polish] = [offered("up"), offered("down"), offered("polish")];
  const park = offered("park") ?? offered("resume");
  const takeOver = offered("take-over");
  const [place, leave] = [andClose(offered("place")), andClose(offered("leave-out"))];
  const off = rung.acts.find((a) => a.do === "take-off");
  const lanes = rung.acts.flatMap((a) => (a.do.startsWith("lane-") ? [a.do.slice(5)] : []));
  const takeOff =
    off &&
    (() => {
      offerBack(`${rung.title} is off the ladder.`, student, ...act(student, off.tell));
      close();
    });
  useKeys({
    "[": down,
    "]": up,
    p: park,
    v: takeOver,
    m: polish,
    a: place,
    x: leave ?? takeOff,
    Escape: close,
  });
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
          ) : rung.expected.low && rung.expected.far ? (
            <>
              not before <b>{namedDay(rung.expected.low)}</b>, perhaps in more than two years
            </>
          ) : rung.expected.far ? (
            "in more than two years"
          ) : (
            "after this year's terms"
          )}
          : eight in ten such pieces take {span(rung.expected.usual.low, rung.expected.usual.high)} at this pace.
        </p>
      )}
      {rung.why.map((r) => (
        <p key={r.code}>{sentence(r)}</p>
      ))}
      {rung.lacks && <p className="border-l-4 border-warn pl-2">{sentence(rung.lacks)}</p>}
      {rung.load && <Load load={rung.load} usual={view.usual} />}
      {(rung.state === "ahead" || rung.state === "current") && (
        <label className="flex items-center gap-2 text-soft">
          Polished by
          <input
            type="date"
            value={rung.target}
            min={view.today}
            onChange={(e) =>
              tell(
                student,
                e.target.value
                  ? { kind: "target_set", rung: rung.id, day: e.target.value }
                  : { kind: "target_dropped", rung: rung.id },
              )
            }
            className="rounded border border-line bg-ground px-2 py-1 text-ink"
          />
        </label>
      )}
      {lanes.length > 0 && (
        <label className="flex items-center gap-2 text-soft">
          Lane
          <select
            value={rung.strand}
            onChange={(e) => offered(`lane-${e.target.value}`)?.()}
            className="rounded border border-line bg-ground px-2 py-1 text-ink"
          >
            {[rung.strand, ...lanes].map((strand) => (
              <option key={strand} value={strand}>
                {strandNames[strand]}
              </option>
            ))}
          </select>
        </label>
      )}
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
        {place && (
          <>
            <Button look="main" hint="A" onClick={place}>
              Place it
            </Button>
            <Button hint="X" onClick={leave}>
              Leave it out
            </Button>
          </>
        )}
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
        {takeOver && (
          <Button hint="V" onClick={takeOver}>
            Take over its new points and parts
          </Button>
        )}
        {park && (
          <Button hint="P" onClick={park}>
            {rung.state === "parked" ? "Resume" : "Put on hold"}
          </Button>
        )}
        {polish && (
          <Button hint="M" onClick={polish}>
            Polished, ready to perform
          </Button>
        )}
        {takeOff && (
          <Button hint="X" onClick={takeOff}>
            Take it off
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

// Load shows what makes a rung heavy: a sum of its terms.
function Load({ load, usual }: { load: Schemas["Load"]; usual: number }) {
  return (
    <section aria-label="Load">
      <h4 className="font-[620]">
        Load {load.total.toFixed(1)}
        <span className="font-normal text-soft">
          {load.slope === "step" ? "" : `, a ${load.slope}`}; usual here is {usual.toFixed(1)}
        </span>
      </h4>
      <ul className="text-soft">
        {load.terms.map((t) => (
          <li key={t.why.code + t.why.args.skill} className="flex items-baseline gap-2">
            <span className="w-8 shrink-0 text-right">{t.amount.toFixed(1)}</span>
            <span
              aria-hidden="true"
              className="h-2 shrink-0 rounded-sm bg-soft"
              style={{ width: Math.min(t.amount, 3) * 16 }}
            />
            {sentence(t.why)}
          </li>
        ))}
        {load.terms.length === 0 && <li>Nothing new in it.</li>}
      </ul>
    </section>
  );
}

function stateLine(r: Rung) {
  switch (r.state) {
    case "secure":
      return `${r.polished ? "Polished. " : ""}Foothold ${r.foothold ? namedDay(r.foothold) : ""} after ${r.weeks < 1 ? "its first lesson" : plural(r.weeks, "taught week")}; last played ${r.silent === 0 ? "today" : `${plural(r.silent, "day")} ago`}`;
    case "current":
      return r.taught ? `First taught ${namedDay(r.taught)}` : "Current; waits for its first lesson";
    case "parked":
      return "On hold";
    case "proposed":
      return "Proposed; not on the ladder yet";
    default:
      return "Ahead";
  }
}
