import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { act, may, tell } from "../../api/outbox";
import { offerBack } from "../../parts/Back";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { namedDay, slopes, span, strandNames } from "../../parts/words";
import { rich, say } from "../../words/say";
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
      offerBack(say("ladder.offLadder", { title: rung.title }), student, ...act(student, off.tell));
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
          {rung.taught ? say("ladder.expected") : say("ladder.expectedIfStartedTurn")}{" "}
          {rung.expected.low && rung.expected.high
            ? rich("ladder.betweenAnd", {
                day: namedDay(rung.expected.low),
                b: (text) => <b>{text}</b>,
                day2: namedDay(rung.expected.high),
              })
            : rung.expected.low && rung.expected.far
              ? rich("ladder.notBeforePerhapsMoreThan", {
                  day: namedDay(rung.expected.low),
                  b: (text) => <b>{text}</b>,
                })
              : rung.expected.far
                ? say("ladder.moreThanTwoYears")
                : say("ladder.afterYearsTerms")}
          {say("ladder.eightTenSuchPiecesTake", { weeks: span(rung.expected.usual.low, rung.expected.usual.high) })}
        </p>
      )}
      {rung.why.map((r) => (
        <p key={r.code}>{r.says}</p>
      ))}
      {rung.lacks && <p className="border-l-4 border-warn pl-2">{rung.lacks.says}</p>}
      {rung.load && <Load load={rung.load} usual={view.usual} />}
      {(rung.state === "ahead" || rung.state === "current") && (
        <label className="flex items-center gap-2 text-soft">
          {say("ladder.polishedBy")}
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
          {say("ladder.area")}
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
                {p.own && <span className="text-soft">{say("ladder.own")}</span>}
              </span>
              <span className="text-soft">
                {p.state === "met"
                  ? say("ladder.reached", { value: p.since ? ` ${namedDay(p.since)}` : "" })
                  : p.state === "open"
                    ? say("ladder.notYet")
                    : "–"}
              </span>
            </li>
          ))}
          {rung.spots.map((s) => (
            <li key={s.id} className="flex justify-between py-1">
              <span>{say("ladder.spot", { where: s.where })}</span>
              <span className="text-soft">{say("ladder.ofInARow", { done: s.done, goal: s.goal })}</span>
            </li>
          ))}
        </ul>
      )}
      {rung.lastTry?.why && <p>{say("ladder.lastTryTurnedBack", { says: rung.lastTry.why.says })}</p>}
      <div className="flex flex-wrap gap-2">
        {place && (
          <>
            <Button look="main" hint="A" onClick={place}>
              {say("ladder.placeIt")}
            </Button>
            <Button hint="X" onClick={leave}>
              {say("ladder.leaveOut")}
            </Button>
          </>
        )}
        {up && (
          <Button hint="]" onClick={up}>
            {say("ladder.later")}
          </Button>
        )}
        {down && (
          <Button hint="[" onClick={down}>
            {say("ladder.sooner")}
          </Button>
        )}
        {takeOver && (
          <Button hint="V" onClick={takeOver}>
            {say("ladder.takeOverItsNewGoals")}
          </Button>
        )}
        {park && (
          <Button hint="P" onClick={park}>
            {rung.state === "parked" ? say("ladder.resume") : say("ladder.putHold")}
          </Button>
        )}
        {polish && (
          <Button hint="M" onClick={polish}>
            {say("ladder.performanceReady")}
          </Button>
        )}
        {takeOff && (
          <Button hint="X" onClick={takeOff}>
            {say("ladder.takeOff")}
          </Button>
        )}
        {rung.hasScore && (
          <Link
            to="/items/$item"
            params={{ item: rung.item }}
            className="rounded px-3 py-2 font-[620] underline underline-offset-4"
          >
            {say("ladder.seeScore")}
          </Link>
        )}
        <Button look="quiet" hint={say("ladder.esc")} onClick={close}>
          {say("ladder.close")}
        </Button>
      </div>
    </article>
  );
}

// Load shows what makes a rung heavy: a sum of its terms.
function Load({ load, usual }: { load: Schemas["Load"]; usual: number }) {
  return (
    <section aria-label={say("ladder.difficulty")}>
      <h4 className="font-[620]">
        {say("ladder.load", { amount: load.total.toFixed(1) })}
        <span className="font-normal text-soft">
          {load.slope === "step" ? "" : `, ${slopes[load.slope]}`}
          {say("ladder.usualHere", { amount: usual.toFixed(1) })}
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
            {t.why.says}
          </li>
        ))}
        {load.terms.length === 0 && <li>{say("ladder.nothingNew")}</li>}
      </ul>
    </section>
  );
}

function stateLine(r: Rung) {
  switch (r.state) {
    case "secure":
      return say("ladder.learntAndPlayed", {
        ready: r.polished ? say("ladder.performanceReady2") : "",
        day: r.foothold ? namedDay(r.foothold) : "",
        after: r.weeks < 1 ? say("ladder.itsFirstLesson") : say("count.taughtWeek", { n: r.weeks }),
        played: r.silent === 0 ? say("parts.todayAt") : say("ladder.daysAgo", { silent: r.silent }),
      });
    case "current":
      return r.taught
        ? say("ladder.firstTaught", { day: namedDay(r.taught) })
        : say("ladder.currentWaitingItsFirstLesson");
    case "parked":
      return say("ladder.onHold");
    case "proposed":
      return say("ladder.suggestedNotLadderYet");
    default:
      return say("ladder.comingUp");
  }
}
