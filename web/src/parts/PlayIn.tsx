import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { answer, api, queries, type Schemas } from "../api/client";
import { act } from "../api/outbox";
import { say } from "../words/say";
import { Button } from "./Button";
import { useKeys } from "./keys";
import { Pads } from "./Pads";
import { metronome } from "./sound";
import { TakeShown } from "./TakeShown";
import { Trouble } from "./Told";
import { type Stroke, useMidi, useTaps } from "./takes";

export type Ask = Pick<
  Schemas["PlayedAsk"],
  "exercise" | "tap" | "item" | "fromNote" | "toNote" | "hand" | "rung" | "instrument"
>;
type View = Schemas["PlayedView"];
type From = Schemas["PlayedAsk"]["from"];
type Setting = Schemas["Setting"];

type Props = {
  ask: Ask;
  student?: Schemas["StudentCard"];
  beat: number; // milliseconds of a quarter note: of the click, and of the simulated keyboard
  hands?: boolean; // each hand taps in a place of its own
  only?: From[];
  measured?: (view: View) => void;
};

const sources: { from: From; name: string }[] = [
  { from: "keys", name: say("parts.aKeyboard") },
  { from: "taps", name: say("parts.taps") },
  { from: "file", name: say("parts.midiFile") },
  { from: "simulated", name: say("parts.simulatedKeyboard") },
];

// PlayIn takes what is played: from a keyboard, from taps, from a file, or from the simulated keyboard;
// it is measured, shown beside the takes before it, and kept when the teacher says so.
export function PlayIn({ ask, student, beat, hands = false, only, measured }: Props) {
  const [from, setFrom] = useState<From>(only?.[0] ?? "taps");
  const [on, setOn] = useState(false);
  const [begin, setBegin] = useState(0);
  const [count, setCount] = useState(0);
  const [click, setClick] = useState(false);
  const [setting, setSetting] = useState<Setting>({ beat });
  const [takes, setTakes] = useState<View[]>([]);
  const [kept, setKept] = useState<View[]>([]);
  const strokes = useRef<Stroke[]>([]);
  const endClick = useRef<() => void>(undefined);
  useEffect(() => () => endClick.current?.(), []);
  const take = (s: Stroke) => {
    strokes.current.push(s);
    setCount(strokes.current.length);
  };
  useTaps(on && from === "taps", hands, begin, take);
  const trouble = useMidi(on && from === "keys", take);
  const measure = useMutation({
    mutationFn: (more: Partial<Schemas["PlayedAsk"]>) =>
      answer(api.POST("/api/played", { body: { ...ask, from, ...more } })),
    onSuccess: (view) => {
      setTakes((before) => [...before, view]);
      measured?.(view);
    },
  });
  const start = () => {
    strokes.current = [];
    setCount(0);
    setBegin(performance.now());
    setOn(true);
    if (click) endClick.current = metronome({ bpm: 60000 / beat, beats: 1, parts: 1 });
  };
  const finish = () => {
    setOn(false);
    endClick.current?.();
    if (strokes.current.length > 0) measure.mutate({ strokes: strokes.current, ...(click && { beat }) });
  };
  const simulate = () => measure.mutate({ simulated: { ...setting, seed: takes.length + 1 } });
  const read = async (file?: File) => {
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    let text = "";
    for (const b of bytes) text += String.fromCharCode(b);
    measure.mutate({ midi: btoa(text) });
  };
  const keep = (view: View) => {
    if (!student) return;
    act(student.id, view.keep);
    setKept([...kept, view]);
    void queries.invalidateQueries({ queryKey: ["taps"] });
  };
  const last = takes.at(-1);
  const free = !on && !measure.isPending;
  const begins = from === "simulated" ? simulate : start;
  useKeys({
    Enter: on ? finish : free && from !== "file" ? begins : undefined,
    k: free && last && student && !kept.includes(last) ? () => keep(last) : undefined,
  });
  const shown = sources.filter((s) => !only || only.includes(s.from));
  return (
    <section
      aria-label={ask.tap ? say("parts.tapIt") : say("parts.playItIn")}
      className="my-3 rounded bg-raised px-4 py-3 print:hidden"
    >
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="mr-2">{ask.tap ? say("parts.tapIt") : say("parts.playItIn")}</h3>
        {shown.length > 1 && (
          <fieldset className="flex flex-wrap gap-1.5">
            <legend className="sr-only">{say("parts.playedOn")}</legend>
            {shown.map((s) => (
              <button
                key={s.from}
                type="button"
                aria-pressed={from === s.from}
                disabled={on}
                onClick={() => setFrom(s.from)}
                className={`rounded border px-2.5 py-1 font-[580] disabled:opacity-45 ${from === s.from ? "border-ink bg-ink text-raised" : "border-line hover:bg-faint"}`}
              >
                {s.name}
              </button>
            ))}
          </fieldset>
        )}
        {(from === "keys" || from === "taps") && (
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={click} disabled={on} onChange={(e) => setClick(e.target.checked)} />
            {say("parts.aClickAt", { amount: Math.round(60000 / beat) })}
          </label>
        )}
        <span className="ml-auto" />
        {from !== "file" && !on && (
          <Button look="main" hint={say("parts.enter")} disabled={!free} onClick={begins}>
            {from === "simulated" ? say("parts.letPlay") : say("parts.begin")}
          </Button>
        )}
        {on && (
          <Button look="main" hint={say("parts.enter")} onClick={finish}>
            {say("parts.thatWasIt")}
          </Button>
        )}
      </div>
      {from === "file" && (
        <label className="mt-2 flex flex-wrap items-center gap-2">
          {say("parts.standardMidiFile")}
          <input type="file" accept=".mid,.midi" onChange={(e) => void read(e.target.files?.[0])} />
        </label>
      )}
      {from === "simulated" && <Simulated setting={setting} set={setSetting} />}
      {on && (
        <p role="status" className="mt-2 text-large">
          {from === "keys" ? say("parts.playNow") : hands ? say("parts.tapNowFLeftHand") : say("parts.tapNow")}{" "}
          {count === 0 ? "" : say("parts.soFar", { count })}
        </p>
      )}
      {from === "taps" && on && <Pads hands={hands} begin={begin} take={take} />}
      {trouble && on && <Trouble>{trouble}</Trouble>}
      {measure.error && <Trouble>{measure.error.message}</Trouble>}
      {last && (
        <TakeShown
          view={last}
          before={takes.at(-2)}
          kept={kept.includes(last)}
          keep={student && (() => keep(last))}
          student={student?.firstName ?? ""}
          tapped={ask.tap !== undefined}
        />
      )}
      {!last && !on && (
        <p className="mt-2 text-soft">
          {ask.tap ? say("parts.fourPulsesOwnTempoWith") : say("parts.onceSeveralTimesOverEasy")}
        </p>
      )}
    </section>
  );
}

const sliders: {
  key: keyof Setting;
  name: string;
  min: number;
  max: number;
  step: number;
  none: number;
  unit: string;
}[] = [
  { key: "spread", name: say("parts.spread"), min: 0, max: 20, step: 0.5, none: 0, unit: "%" },
  { key: "lope", name: say("parts.lope"), min: 0.6, max: 1.8, step: 0.05, none: 1, unit: say("parts.to1") },
  { key: "drift", name: say("parts.drift"), min: -30, max: 30, step: 1, none: 0, unit: "%" },
  { key: "thumb", name: say("parts.thumb"), min: -40, max: 40, step: 1, none: 0, unit: say("parts.stronger") },
  { key: "fourth", name: say("parts.fourthFinger"), min: -40, max: 40, step: 1, none: 0, unit: say("parts.stronger") },
];

// Simulated sets how evenly the simulated keyboard plays.
function Simulated({ setting, set }: { setting: Setting; set: (s: Setting) => void }) {
  return (
    <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
      {sliders.map((s) => {
        const value = Number(setting[s.key] ?? s.none);
        return (
          <label key={s.key} className="flex items-center gap-2">
            {s.name}
            <input
              type="range"
              min={s.min}
              max={s.max}
              step={s.step}
              value={value}
              onChange={(e) => set({ ...setting, [s.key]: Number(e.target.value) })}
              className="w-28"
            />
            <span className="w-24 text-soft">
              {value} {s.unit}
            </span>
          </label>
        );
      })}
      <Button look="quiet" onClick={() => set({ beat: setting.beat })}>
        {say("parts.allEven")}
      </Button>
    </div>
  );
}
