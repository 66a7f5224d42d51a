import { useMutation } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useMemo, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button, Key } from "../../parts/Button";
import type { Instrument } from "../../parts/instruments";
import { useKeys } from "../../parts/keys";
import { Lies } from "../../parts/Lies";
import { PlayIn } from "../../parts/PlayIn";
import { Score } from "../../parts/Score";
import { type Sound, speeds } from "../../parts/sound";
import { Trouble } from "../../parts/Told";
import { useHearing } from "../../parts/useHearing";
import { say } from "../../words/say";
import { Place } from "../item/Place";
import { CrossGrid } from "./CrossGrid";
import { Taps } from "./Taps";

type View = Schemas["ExerciseView"];
type Props = { view: View; instrument: Instrument; student?: Schemas["StudentCard"]; rung?: string };

// Made is an exercise drawn, heard, and put where it belongs.
export function Made({ view, instrument, student, rung }: Props) {
  const [speed, setSpeed] = useState(0);
  const [hand, setHand] = useState("both");
  const [now, setNow] = useState<string[]>([]);
  const { playing, hear, stop } = useHearing(view, setNow);
  const letters = useMemo(() => (Object.keys(view.letters).length > 0 ? [view.letters] : []), [view.letters]);
  const whole = () => {
    const inOrder = view.sounds.toSorted((a, b) => a.onset - b.onset);
    return { fromId: inOrder[0]?.id ?? "", toId: inOrder.at(-1)?.id ?? "", hand };
  };
  const toggle = () => {
    if (playing) stop();
    else hear(whole(), speeds[speed]?.of ?? 1);
  };
  const sides = ["both", ...view.hands];
  const nextHand = () => setHand(sides[(sides.indexOf(hand) + 1) % sides.length] ?? "both");
  useKeys({
    " ": toggle,
    "1": () => setSpeed(0),
    "2": () => setSpeed(1),
    "3": () => setSpeed(2),
    e: view.hands.length > 1 ? nextHand : undefined,
  });
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-head">
          {view.title}
          {view.who && <span className="text-soft">, {view.who}</span>}
        </h2>
        <span className="flex flex-wrap items-center gap-1.5 print:hidden">
          {speeds.map((s, i) => (
            <Toggle key={s.name} hint={String(i + 1)} on={i === speed} press={() => setSpeed(i)}>
              {s.name}
            </Toggle>
          ))}
          {view.hands.length > 1 && (
            <Toggle hint="E" on={hand !== "both"} press={nextHand}>
              {hand === "both" ? say("workbench.bothHands") : say("workbench.handAlone", { hand })}
            </Toggle>
          )}
          <Button look="main" hint={say("parts.spaceKey")} onClick={toggle}>
            {playing ? say("workbench.stop") : say("workbench.hearIt")}
          </Button>
          <Button onClick={() => window.print()}>{say("workbench.print")}</Button>
        </span>
      </div>
      <p className="mb-2 text-large text-soft">{view.how}</p>
      {view.grid && <CrossGrid grid={view.grid} />}
      {view.grid ? (
        <Taps pick={view.chosen.pick} grid={view.grid} instrument={instrument.id} student={student} />
      ) : (
        <PlayIn
          ask={{ exercise: view.exercise, instrument: instrument.id, ...(rung && { rung }) }}
          student={student}
          beat={Math.round(60000 / view.qpm)}
        />
      )}
      <Score xml={view.xml} title={view.title} verses={letters} />
      {!view.grid && <Lie view={view} now={now} />}
      {view.meetings.length > 0 && <Meetings meetings={view.meetings} />}
      <ul className="mt-3 rounded bg-raised px-4 py-2.5 print:hidden">
        {view.minute.map((r) => (
          <li key={r.code + JSON.stringify(r.args)}>{r.says}</li>
        ))}
      </ul>
      <Keep view={view} instrument={instrument} student={student} />
    </>
  );
}

type ToggleProps = { hint: string; on: boolean; press: () => void; children: React.ReactNode };

function Toggle({ hint, on, press, children }: ToggleProps) {
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={press}
      className={`inline-flex items-center gap-1.5 rounded border px-2.5 py-1 font-[580] ${on ? "border-ink bg-ink text-raised" : "border-line bg-raised hover:bg-faint"}`}
    >
      {children} <Key>{hint}</Key>
    </button>
  );
}

// widest is how many semitones a drawing of keys has room for.
const widest = 37;

// Lie draws where the notes lie, a picture a hand; on keys a bar marks the thumbs of a
// scale.
function Lie({ view, now }: { view: View; now: string[] }) {
  const scale = view.thumbs.length > 0;
  const rising = (notes: Sound[]) => {
    const top = notes.findIndex((n) => n.key === Math.max(...notes.map((x) => x.key)));
    return scale && view.chosen.kind === "scale" && view.chosen.hands !== "mirrored" ? notes.slice(0, top + 1) : notes;
  };
  const staves = view.hands.length > 0 ? view.hands : [""];
  return (
    <div className="mt-3 flex flex-wrap gap-6 rounded bg-raised px-4 py-3 print:hidden">
      {staves.map((hand, staff) => {
        const notes = view.sounds.filter((s) => s.staff === staff);
        const keys = notes.map((n) => n.key);
        if (notes.length === 0 || Math.max(...keys) - Math.min(...keys) > widest) return null;
        const thumbs = new Set(
          rising(notes)
            .filter((n) => scale && n.finger === "1")
            .map((n) => n.key % 12),
        );
        const degrees = rising(notes);
        const met = new Set(view.meetings.flatMap((m) => m.degrees).map((d) => (degrees[d - 1]?.key ?? -1) % 12));
        return (
          <figure key={hand}>
            <figcaption className="text-soft">
              {hand && say("workbench.hand", { hand })}
              {thumbs.size > 0 && say("workbench.barUnderThumb")}
              {met.size > 0 && say("workbench.ringWhereHandsMeet")}
            </figcaption>
            <Lies
              open={view.open}
              notes={rising(notes)}
              now={now}
              marked={thumbs}
              met={met}
              of={hand || say("workbench.theExercise2")}
            />
          </figure>
        );
      })}
    </div>
  );
}

// Keep puts an exercise on the shelf, and from there on a ladder.
function Keep({ view, instrument, student }: Props) {
  const keep = useMutation({
    mutationFn: () =>
      answer(
        api.PUT("/api/exercises/{exercise}", {
          params: { path: { exercise: ulid() } },
          body: { exercise: view.exercise, instrument: instrument.id },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  const kept = keep.data;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3 print:hidden">
      {!kept && (
        <Button disabled={keep.isPending} onClick={() => keep.mutate()}>
          {student ? say("workbench.putSLadder", { firstName: student.firstName }) : say("workbench.putShelf")}
        </Button>
      )}
      {kept && student && <Place item={kept} student={student} />}
      {kept && !student && (
        <p>
          {say("workbench.standsShelfAmongExercises")}{" "}
          <Link to="/items/$item" params={{ item: kept.id }} className="font-[620] underline underline-offset-4">
            {kept.title}
          </Link>
        </p>
      )}
      {keep.error && <Trouble>{keep.error.message}</Trouble>}
    </div>
  );
}

const ordinals = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];

// Meetings says where the hands of a scale meet, which is played first.
function Meetings({ meetings }: { meetings: View["meetings"] }) {
  const degree = (n: number) => ordinals[n - 1] ?? String(n);
  return (
    <section aria-label={say("workbench.whereHandsMeet")} className="mt-3 rounded bg-raised px-4 py-2.5">
      <h3>{say("workbench.whereHandsMeetPlayOnly")}</h3>
      <ul className="flex flex-wrap gap-x-6">
        {meetings.map((m) => (
          <li key={m.degrees.join()}>
            {m.degrees.length === 1
              ? say("workbench.withNote", { fingers: m.fingers[0], degree: degree(m.degrees[0] ?? 1) })
              : say("workbench.crosswiseOver", {
                  list: m.fingers.join(" + "),
                  list2: m.degrees.map(degree).join(" + "),
                })}
          </li>
        ))}
      </ul>
    </section>
  );
}
