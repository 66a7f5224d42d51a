import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { useDay } from "../../api/views";
import { Button, Key } from "../../parts/Button";
import { type Instrument, PickInstrument, useInstruments } from "../../parts/instruments";
import { useKeys } from "../../parts/keys";
import { Score } from "../../parts/Score";
import { speeds } from "../../parts/sound";
import { Trouble } from "../../parts/Told";
import { useHearing } from "../../parts/useHearing";
import { sentence } from "../../parts/words";
import { Place } from "../item/Place";

type Chosen = { kind: string; tonic: string; form: string; hands: string; octaves: number; fingers: string };
type View = Schemas["ExerciseView"];

const forms = [
  { key: "major", name: "major" },
  { key: "natural", name: "natural minor" },
  { key: "harmonic", name: "harmonic minor" },
  { key: "melodic", name: "melodic minor" },
];
const handNames = [
  { key: "right", name: "right hand" },
  { key: "left", name: "left hand" },
  { key: "both", name: "together" },
  { key: "mirrored", name: "mirrored" },
];
const shown = (tonic: string) => tonic.replace("b", "♭").replace("#", "♯");

// ExercisesScreen makes scales, patterns, chords, bows and rolls by rule: chosen, seen
// with their fingers, heard, printed, and put on a ladder.
export function ExercisesScreen() {
  const { student: asked } = useSearch({ from: "/inside/workbench/exercises" });
  const go = useNavigate();
  const day = useDay().data;
  const { of } = useInstruments();
  const [other, setOther] = useState("piano");
  const student = day?.students.find((s) => s.id === asked);
  const instrument = of(student?.instrument ?? other);
  return (
    <main className="flex flex-1 flex-col gap-3 px-4 py-3">
      <div className="screen-only flex flex-wrap items-end gap-4 print:hidden">
        <h1 className="text-head">Scales and patterns</h1>
        <label className="flex items-center gap-2">
          for
          <select
            value={student?.id ?? ""}
            onChange={(e) => void go({ to: "/workbench/exercises", search: { student: e.target.value || undefined } })}
            className="rounded border border-line bg-raised px-2 py-1.5"
          >
            <option value="">anybody</option>
            {day?.students.map((s) => (
              <option key={s.id} value={s.id}>
                {s.firstName} {s.familyName}
              </option>
            ))}
          </select>
        </label>
        {!student && (
          <PickInstrument
            value={other}
            set={setOther}
            className="ml-2 rounded border border-line bg-raised px-2 py-1.5"
          />
        )}
        <Link to="/workbench" search={{ student: student?.id }} className="ml-auto underline underline-offset-4">
          Sitting down
        </Link>
      </div>
      {instrument && <Made key={instrument.id} instrument={instrument} student={student} />}
    </main>
  );
}

// written says a choice as the specification of an exercise.
function written(c: Chosen, asks: string[]): string {
  const words = [c.kind];
  if (asks.includes("fingers")) words.push(c.fingers);
  if (asks.includes("tonic")) words.push(c.tonic);
  if (asks.includes("form")) words.push(c.form);
  if (asks.includes("hands")) words.push(c.hands);
  if (asks.includes("octaves")) words.push(String(c.octaves));
  return words.join(" ");
}

function Made({ instrument, student }: { instrument: Instrument; student?: Schemas["StudentCard"] }) {
  const offers = instrument.offers;
  const first = offers.find((o) => o.kind === "scale") ?? offers[0];
  const rolls = offers.find((o) => o.kind === "roll")?.rolls ?? [];
  const [chosen, choose] = useState<Chosen>({
    kind: first?.kind ?? "scale",
    tonic: instrument.family === "bowed" ? "D" : "C",
    form: "major",
    hands: "right",
    octaves: 1,
    fingers: rolls[0] ?? "",
  });
  const asks = offers.find((o) => o.kind === chosen.kind)?.asks ?? [];
  const set = (change: Partial<Chosen>) => choose((was) => ({ ...was, ...change }));
  const exercise = written(chosen, asks);
  const made = useQuery({
    queryKey: ["exercise", instrument.id, exercise],
    queryFn: () => answer(api.POST("/api/exercise", { body: { exercise, instrument: instrument.id } })),
    placeholderData: keepPreviousData,
  });
  const { tonics } = useInstruments();
  const keys = tonics[chosen.form] ?? [];
  return (
    <div className="grid gap-4 lg:grid-cols-[300px_1fr] print:block">
      <section aria-label="Which exercise" className="h-fit space-y-3 rounded bg-raised p-4 print:hidden">
        <Choices
          name="Kind"
          all={offers.map((o) => ({ key: o.kind, name: o.name }))}
          value={chosen.kind}
          set={(kind) => set({ kind })}
        />
        {asks.includes("tonic") && (
          <Choices
            name="From"
            all={keys.map((t) => ({ key: t, name: shown(t) }))}
            value={chosen.tonic}
            set={(tonic) => set({ tonic })}
            columns
          />
        )}
        {asks.includes("form") && (
          <Choices
            name="Form"
            all={forms}
            value={chosen.form}
            set={(form) => {
              const i = keys.indexOf(chosen.tonic);
              set({ form, tonic: tonics[form]?.[i] ?? "C" });
            }}
          />
        )}
        {asks.includes("hands") && (
          <Choices name="Hands" all={handNames} value={chosen.hands} set={(hands) => set({ hands })} />
        )}
        {asks.includes("octaves") && (
          <Choices
            name="Octaves"
            all={["1", "2", "3", "4"].map((n) => ({ key: n, name: n }))}
            value={String(chosen.octaves)}
            set={(n) => set({ octaves: Number(n) })}
          />
        )}
        {asks.includes("fingers") && (
          <Choices
            name="Fingers"
            all={rolls.map((r) => ({ key: r, name: [...r].join(" ") }))}
            value={chosen.fingers}
            set={(fingers) => set({ fingers })}
          />
        )}
      </section>
      <section aria-label="The exercise" className="min-w-0">
        {made.error && <Trouble again={made.refetch}>{made.error.message}</Trouble>}
        {made.data?.wrong && <Trouble>{made.data.wrong}</Trouble>}
        {made.data && !made.data.wrong && (
          <Seen view={made.data} exercise={exercise} instrument={instrument} student={student} />
        )}
      </section>
    </div>
  );
}

type ChoicesProps = {
  name: string;
  all: { key: string; name: string }[];
  value: string;
  set: (key: string) => void;
  columns?: boolean;
};

// Choices are one row of buttons, one of them chosen.
function Choices({ name, all, value, set, columns }: ChoicesProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-[620]">{name}</legend>
      <div className={columns ? "grid grid-cols-6 gap-1" : "flex flex-wrap gap-1"}>
        {all.map((c) => (
          <button
            key={c.key}
            type="button"
            aria-pressed={c.key === value}
            onClick={() => set(c.key)}
            className={`rounded border px-2 py-1.5 font-[580] ${c.key === value ? "border-ink bg-ink text-raised" : "border-line bg-ground hover:bg-faint"}`}
          >
            {c.name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

type SeenProps = { view: View; exercise: string; instrument: Instrument; student?: Schemas["StudentCard"] };

// Seen is the exercise drawn, heard, and put where it belongs.
function Seen({ view, exercise, instrument, student }: SeenProps) {
  const [speed, setSpeed] = useState(0);
  const { playing, hear, stop } = useHearing(view);
  const keep = useMutation({
    mutationFn: () =>
      answer(
        api.PUT("/api/exercises/{exercise}", {
          params: { path: { exercise: ulid() } },
          body: { exercise, instrument: instrument.id },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  const kept = keep.data?.exercise === view.exercise ? keep.data : undefined;
  const whole = () => {
    const inOrder = view.sounds.toSorted((a, b) => a.onset - b.onset);
    return { fromId: inOrder[0]?.id ?? "", toId: inOrder.at(-1)?.id ?? "", hand: "both" };
  };
  const toggle = () => {
    if (playing) stop();
    else hear(whole(), speeds[speed]?.of ?? 1);
  };
  useKeys({ " ": toggle, "1": () => setSpeed(0), "2": () => setSpeed(1), "3": () => setSpeed(2) });
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-head">{view.title}</h2>
        <span className="flex flex-wrap gap-1.5 print:hidden">
          {speeds.map((s, i) => (
            <button
              key={s.name}
              type="button"
              aria-pressed={i === speed}
              onClick={() => setSpeed(i)}
              className={`inline-flex items-center gap-1.5 rounded border px-2.5 py-1 font-[580] ${i === speed ? "border-ink bg-ink text-raised" : "border-line bg-raised hover:bg-faint"}`}
            >
              {s.name} <Key>{i + 1}</Key>
            </button>
          ))}
          <Button look="main" hint="space" onClick={toggle}>
            {playing ? "Stop" : "Hear it"}
          </Button>
          <Button onClick={() => window.print()}>Print</Button>
        </span>
      </div>
      <Score xml={view.xml} title={view.title} />
      {view.meetings.length > 0 && <Meetings meetings={view.meetings} />}
      <ul className="mt-3 rounded bg-raised px-4 py-2.5 print:hidden">
        {view.minute.map((r) => (
          <li key={r.code + JSON.stringify(r.args)}>{sentence(r)}</li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-center gap-3 print:hidden">
        {!kept && (
          <Button disabled={keep.isPending} onClick={() => keep.mutate()}>
            {student ? `Put it on ${student.firstName}'s ladder` : "Put it on the shelf"}
          </Button>
        )}
        {kept && student && <Place item={kept} student={student} />}
        {kept && !student && (
          <p>
            It stands on the shelf among the exercises:{" "}
            <Link to="/items/$item" params={{ item: kept.id }} className="font-[620] underline underline-offset-4">
              {kept.title}
            </Link>
          </p>
        )}
        {keep.error && <Trouble>{keep.error.message}</Trouble>}
      </div>
    </>
  );
}

const ordinals = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];

// Meetings says where the hands of a scale meet, which is played first.
function Meetings({ meetings }: { meetings: View["meetings"] }) {
  const degree = (n: number) => ordinals[n - 1] ?? String(n);
  return (
    <section aria-label="Where the hands meet" className="mt-3 rounded bg-raised px-4 py-2.5">
      <h3>Where the hands meet: play only these first</h3>
      <ul className="flex flex-wrap gap-x-6">
        {meetings.map((m) => (
          <li key={m.degrees.join()}>
            {m.degrees.length === 1
              ? `${m.fingers[0]} with ${m.fingers[0]} on the ${degree(m.degrees[0] ?? 1)} note`
              : `${m.fingers.join(" and ")} crosswise over the ${m.degrees.map(degree).join(" and ")}`}
          </li>
        ))}
      </ul>
    </section>
  );
}
