import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { act, may, tell } from "../../api/outbox";
import { Button, Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { Notes } from "../../parts/Notes";
import { namedDay } from "../../parts/words";
import { rich, say } from "../../words/say";
import { Cards } from "./Cards";
import { Parts } from "./Parts";
import type { LessonView } from "./view";
import { Went } from "./Went";
import { Write } from "./Write";

type Props = { view: LessonView; rung: Schemas["RungView"] };

// Piece marks a current rung: its lesson, its points with one held in mind,
// its spots, and the try for the foothold.
export function Piece({ view, rung }: Props) {
  const student = view.student.id;
  const points = rung.points.filter((p) => p.key !== "spots");
  const held = points.find((p) => p.key === rung.held);
  const spot = rung.spots.find((s) => s.done < s.goal);

  const hold = (point: string) => tell(student, { kind: "point_held", rung: rung.id, point });
  const mark = (state: "met" | "open") =>
    held ? () => tell(student, { kind: "point_marked", rung: rung.id, point: held.key, state }) : undefined;
  const [met, notYet] = [mark("met"), mark("open")];
  const judge = (says: "yes" | "nearly" | "no") =>
    tell(student, { kind: "self_judged", rung: rung.id, point: held?.key, says });
  const drill = spot
    ? () => tell(student, { kind: "spot_drilled", rung: rung.id, spot: spot.id, run: spot.done + 1 })
    : undefined;
  const [grant, refuse] = [may(student, rung.piece, "grant"), may(student, rung.piece, "not-yet")];
  const taught = rung.taught ? undefined : may(student, rung.piece, "taught");
  const missing = (rung.piece ?? []).filter((a) => a.do.startsWith("not-yet:"));
  const part = rung.parts.find((p) => p.due)?.name;
  const done = rung.state === "secure";

  useKeys({
    ...Object.fromEntries(points.map((p, i) => [String(i + 1), () => hold(p.key)])),
    Enter: met,
    n: notYet,
    y: () => judge("yes"),
    l: () => judge("nearly"),
    o: () => judge("no"),
    s: drill,
    t: taught,
    f: grant,
    g: refuse,
  });

  if (done) {
    return (
      <p className="mt-6 rounded border-l-4 border-keep bg-keep-tint p-4 text-large">
        {rich("lesson.learntMovesReviewNextPiece", { title: rung.title, b: (text) => <b>{text}</b> })}
      </p>
    );
  }
  return (
    <div className="mt-5 space-y-3">
      {taught && (
        <div className="flex flex-wrap items-center gap-3 rounded border-l-4 border-now bg-now-tint p-3 text-large">
          <span className="flex-1">{say("lesson.notTaughtLessonYetTeach")}</span>
          <Button look="main" hint="T" onClick={taught}>
            {say("lesson.taughtToday")}
          </Button>
        </div>
      )}
      {rung.deck && <Cards student={student} rung={rung.id} deck={rung.deck} />}
      {rung.plays.length === 0 && rung.steps.length > 0 && <Steps steps={rung.steps} />}
      {rung.parts.length > 0 && <Parts student={student} rung={rung} />}
      {rung.plays.map((p) => (
        <Notes key={p.exercise} exercise={p.exercise} instrument={view.student.instrument} />
      ))}
      {rung.plays.length > 0 && (
        <Link
          to="/workbench/exercises"
          search={{ student: view.student.id, exercise: rung.plays[0]?.exercise }}
          className="inline-block underline underline-offset-4"
        >
          {say("lesson.hearPlayPrintTools")}
        </Link>
      )}
      <ul aria-label={say("lesson.goals")} className="grid gap-2.5 lg:grid-cols-2">
        {points.map((p, i) => (
          <li key={p.key}>
            <button
              type="button"
              aria-pressed={p.key === rung.held}
              onClick={() => hold(p.key)}
              className={`flex min-h-14 w-full items-center gap-3 rounded border-[1.5px] px-3.5 text-left ${
                p.key === rung.held
                  ? "border-now bg-now-tint"
                  : p.state === "met"
                    ? "border-keep bg-keep-tint"
                    : "border-line hover:bg-faint"
              }`}
            >
              <Key>{i + 1}</Key>
              <b className="text-large font-[620]">{p.name}</b>
              <span className="ml-auto text-soft">{pointNote(p, p.key === rung.held)}</span>
            </button>
          </li>
        ))}
        {rung.spots.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              onClick={s === spot ? drill : undefined}
              disabled={s !== spot}
              className={`flex min-h-14 w-full items-center gap-3 rounded border-[1.5px] px-3.5 text-left ${
                s.done >= s.goal ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"
              }`}
            >
              {s === spot && <Key>S</Key>}
              <b className="text-large font-[620]">{say("lesson.spot")}</b>
              <span className="flex gap-1.5" aria-hidden="true">
                {Array.from({ length: s.goal }, (_, i) => i).map((i) => (
                  <span
                    key={i}
                    className={`size-3.5 rounded-full border-[1.5px] border-now ${i < s.done ? "bg-now" : ""}`}
                  />
                ))}
              </span>
              <span className="ml-auto text-soft">{s.where}</span>
              <span className="sr-only">{say("lesson.ofInARow", { done: s.done, goal: s.goal })}</span>
            </button>
          </li>
        ))}
      </ul>
      {held && (
        <div className="flex flex-wrap items-center gap-2.5 rounded bg-faint p-3">
          <p className="min-w-48 flex-1 text-large">
            {rich("lesson.askFirstHowWas", { name: held.name, b: (text) => <b>{text}</b> })}
          </p>
          <Button hint="Y" onClick={() => judge("yes")}>
            {say("lesson.good")}
          </Button>
          <Button hint="L" onClick={() => judge("nearly")}>
            {say("lesson.nearly")}
          </Button>
          <Button hint="O" onClick={() => judge("no")}>
            {say("lesson.no")}
          </Button>
        </div>
      )}
      <div className="flex flex-wrap gap-2.5">
        <Button look="main" hint="↵" onClick={met} disabled={!met}>
          {held
            ? say("lesson.reached", { name: held.name })
            : points.every((p) => p.state === "met")
              ? say("lesson.allGoalsReached")
              : say("lesson.choosePoint")}
        </Button>
        <Button hint="N" onClick={notYet} disabled={!notYet}>
          {say("lesson.notYet")}
        </Button>
        <Write
          of={rung.id}
          name={say("lesson.noteTrickySpot")}
          hint="P"
          ask={say("lesson.whereTrickySpot")}
          example={say("lesson.bar7")}
          done={say("lesson.inARow", { spotGoal: rung.spotGoal })}
          save={(where) => tell(student, { kind: "spot_noted", rung: rung.id, where, goal: rung.spotGoal })}
        />
        <Write
          of={rung.id}
          name={say("lesson.goalEveryPiece")}
          hint="W"
          ask={say("lesson.whatShouldStudentKeepMind")}
          example={say("lesson.leftThumbLoose")}
          done={say("lesson.everyPiece")}
          save={(name) => tell(student, { kind: "own_point", name })}
        />
      </div>
      <Went view={view} rung={rung.id} />
      <fieldset className="flex flex-wrap items-center gap-2 border-t border-faint pt-3">
        <legend className="sr-only">{say("lesson.playThrough")}</legend>
        <Button hint="F" onClick={grant}>
          {say("lesson.markLearnt2")}
          {part && `, ${part}`}
        </Button>
        <span className="text-soft">{say("lesson.notYet2")}</span>
        {missing.map((a) => (
          <button
            key={a.do}
            type="button"
            aria-label={say("lesson.notYet3", { detail: a.do.slice("not-yet:".length) })}
            className="min-h-6 rounded border border-line px-2.5 py-1.5 hover:bg-faint"
            onClick={() => act(student, a.tell)}
          >
            {a.do.slice("not-yet:".length)}
          </button>
        ))}
      </fieldset>
      {rung.lastTry?.why && rung.refused && (
        <p role="status" className="rounded border-l-4 border-warn bg-raised p-3 text-large outline outline-line">
          {rich("lesson.tooEarlyGoalsLeft", {
            b: (text) => <b>{text}</b>,
            says: rung.lastTry.why.says,
            list: rung.missing.join(", "),
          })}
        </p>
      )}
    </div>
  );
}

function pointNote(p: Schemas["PointView"], held: boolean) {
  const own = p.own ? say("lesson.ownGoal") : "";
  if (p.state === "met") return say("lesson.reached2", { own, value: p.since ? ` ${namedDay(p.since)}` : "" });
  if (held) return say("lesson.focus", { own });
  return own + (p.state === "open" ? say("lesson.notYet4") : say("lesson.toDo"));
}

// Steps say how a game goes.
function Steps({ steps }: { steps: string[] }) {
  return (
    <ol aria-label={say("lesson.howGoes")} className="space-y-1 rounded bg-faint p-3 text-large">
      {steps.map((s, i) => (
        <li key={s} className="flex gap-3">
          <span className="text-soft">{i + 1}</span>
          {s}
        </li>
      ))}
    </ol>
  );
}
