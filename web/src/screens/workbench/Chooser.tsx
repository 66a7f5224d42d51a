import type { Schemas } from "../../api/client";
import { Key } from "../../parts/Button";
import { type Instrument, useInstruments } from "../../parts/instruments";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";

type Chosen = Schemas["Chosen"];

const forms = [
  { key: "major", name: say("workbench.major") },
  { key: "natural", name: say("workbench.naturalMinor") },
  { key: "harmonic", name: say("workbench.harmonicMinor") },
  { key: "melodic", name: say("workbench.melodicMinor") },
];
const handNames = [
  { key: "right", name: say("workbench.rightHand") },
  { key: "left", name: say("workbench.leftHand") },
  { key: "both", name: say("workbench.together") },
  { key: "mirrored", name: say("workbench.mirrored") },
];
const octaves = ["1", "2", "3", "4"].map((n) => ({ key: n, name: n }));
const shown = (tonic: string) => tonic.replace("b", "♭").replace("#", "♯");

// written says a choice as the specification of an exercise.
function written(c: Chosen, asks: string[]): string {
  const words: string[] = [c.kind];
  if (asks.includes("pick")) words.push(c.pick);
  if (asks.includes("tonic")) words.push(c.tonic);
  if (asks.includes("form")) words.push(c.form);
  if (asks.includes("hands")) words.push(c.hands);
  if (asks.includes("octaves")) words.push(String(c.octaves));
  return words.join(" ");
}

// first is what stands there before anything was chosen.
export function first(instrument: Instrument, offers: Schemas["Offer"][]): string {
  const offer = offers.find((o) => o.kind === "scale") ?? offers[0];
  return offer?.kind === "scale" ? `scale ${instrument.family === "bowed" ? "D" : "C"}` : (offer?.kind ?? "scale");
}

type Week = Schemas["PlayView"][];

type Props = {
  instrument: Instrument;
  chosen: Chosen;
  week: Week;
  exercise: string;
  choose: (exercise: string) => void;
};

// Chooser says which exercise: this week's for a student, or any by group, kind and key;
// by pointer, or by the keys beside each row, which step on.
export function Chooser({ instrument, chosen, week, exercise, choose }: Props) {
  const { tonics, offers: made } = useInstruments();
  const offers = made(instrument.id);
  const offer = offers.find((o) => o.kind === chosen.kind);
  const groups = [...new Set(offers.map((o) => o.group))];
  const keys = tonics[chosen.form] ?? [];
  const set = (change: Partial<Chosen>) => {
    const next = { ...chosen, ...change };
    const to = offers.find((o) => o.kind === next.kind);
    if (to && change.kind) next.pick = to.picks[0] ?? "";
    choose(written(next, to?.asks ?? []));
  };
  const formed = (form: string) => {
    const tonic = tonics[form]?.[keys.indexOf(chosen.tonic)] ?? "C";
    set({ form: form as Chosen["form"], tonic });
  };
  const kinds = offers.filter((o) => o.group === offer?.group).map((o) => ({ key: o.kind, name: o.name }));
  const rows = [
    {
      name: say("workbench.group"),
      hint: "G",
      all: groups.map((g) => ({ key: g, name: g })),
      value: offer?.group ?? "",
      set: (group: string) => set({ kind: offers.find((o) => o.group === group)?.kind ?? "scale" }),
    },
    { name: say("workbench.kind"), hint: "K", all: kinds, value: chosen.kind, set: (kind: string) => set({ kind }) },
    {
      name:
        offer?.kind === "roll" || offer?.kind === "figure"
          ? say("workbench.fingers")
          : say("workbench.rightAgainstLeft"),
      ask: "pick",
      hint: "P",
      all: (offer?.picks ?? []).map((p) => ({
        key: p,
        name: p.includes(":") ? p.replace(":", " : ") : [...p].join(" "),
      })),
      value: chosen.pick,
      set: (pick: string) => set({ pick }),
    },
    {
      name: say("workbench.from"),
      ask: "tonic",
      hint: "→",
      columns: true,
      all: keys.map((t) => ({ key: t, name: shown(t) })),
      value: chosen.tonic,
      set: (tonic: string) => set({ tonic }),
    },
    { name: say("workbench.form"), ask: "form", hint: "F", all: forms, value: chosen.form, set: formed },
    {
      name: say("workbench.hands"),
      ask: "hands",
      hint: "H",
      all: handNames,
      value: chosen.hands,
      set: (hands: string) => set({ hands: hands as Chosen["hands"] }),
    },
    {
      name: say("workbench.octaves"),
      ask: "octaves",
      hint: "O",
      all: octaves,
      value: String(chosen.octaves),
      set: (n: string) => set({ octaves: Number(n) }),
    },
  ].filter((r) => !r.ask || offer?.asks.includes(r.ask));
  const step = (row: (typeof rows)[number] | undefined, by: number) => {
    if (!row || row.all.length === 0) return;
    const at = row.all.findIndex((o) => o.key === row.value);
    row.set(row.all[(at + by + row.all.length) % row.all.length]?.key ?? "");
  };
  const from = rows.find((r) => r.ask === "tonic");
  useKeys({
    ...Object.fromEntries(rows.filter((r) => r.hint !== "→").map((r) => [r.hint.toLowerCase(), () => step(r, 1)])),
    ArrowRight: () => step(from, 1),
    ArrowLeft: () => step(from, -1),
  });
  return (
    <section aria-label={say("workbench.whichExercise")} className="h-fit space-y-3 rounded bg-raised p-4 print:hidden">
      {week.length > 0 && (
        <Choices
          name={say("workbench.thisWeek")}
          all={week.map((w) => ({ key: w.exercise, name: w.title }))}
          value={exercise}
          set={choose}
        />
      )}
      {rows.map(({ name, hint, all, value, set: put, columns }) => (
        <Choices key={name} name={name} hint={hint} all={all} value={value} set={put} columns={columns} />
      ))}
    </section>
  );
}

type ChoicesProps = {
  name: string;
  hint?: string;
  all: { key: string; name: string }[];
  value: string;
  set: (key: string) => void;
  columns?: boolean;
};

// Choices are one row of buttons, one of them chosen.
function Choices({ name, hint, all, value, set, columns }: ChoicesProps) {
  return (
    <fieldset>
      <legend className="mb-1 font-[620]">
        {name} {hint && <Key>{hint}</Key>}
      </legend>
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
