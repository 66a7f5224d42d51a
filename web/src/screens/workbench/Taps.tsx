import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { PlayIn } from "../../parts/PlayIn";
import { sing } from "../../parts/sound";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";

type Props = { pick: string; grid: Schemas["Grid"]; instrument: string; student?: Schemas["StudentCard"] };

// Taps is the way to a cross-rhythm, tapped with a finger of each hand: from a steady pulse to both
// together, what held, and what comes next.
export function Taps({ pick, grid, instrument, student }: Props) {
  const [right = "3", left = "2"] = pick.split(":");
  const query = useQuery({
    queryKey: ["taps", right, left, student?.id ?? ""],
    queryFn: () =>
      answer(
        api.GET("/api/taps/{right}/{left}", {
          params: { path: { right: Number(right), left: Number(left) }, query: { student: student?.id } },
        }),
      ),
  });
  const [chosen, choose] = useState<string>();
  const [held, setHeld] = useState<string[]>([]); // in this sitting
  return (
    <Shown query={query}>
      {(view) => {
        const holds = (s: Schemas["TapStep"]) => s.holds || held.includes(s.key);
        const step =
          view.steps.find((s) => s.key === chosen) ??
          view.steps.find((s) => !holds(s)) ??
          (view.steps.at(-1) as Schemas["TapStep"]);
        return (
          <section aria-label={say("workbench.wayThere")} className="mt-3 rounded bg-raised px-4 py-3 print:hidden">
            <h3>{say("workbench.wayThere")}</h3>
            <ol className="mt-2 grid gap-1.5">
              {view.steps.map((s, i) => (
                <li key={s.key}>
                  <button
                    type="button"
                    aria-pressed={s === step}
                    onClick={() => choose(s.key)}
                    className={`flex w-full flex-wrap items-center gap-x-3 rounded border px-3 py-1.5 text-left ${
                      s === step ? "border-now bg-now-tint" : holds(s) ? "border-keep bg-keep-tint" : "border-line"
                    }`}
                  >
                    <b className="font-[620]">
                      {i + 1}. {s.name}
                    </b>
                    <span className="text-soft">{holds(s) ? say("workbench.steady") : s.why}</span>
                  </button>
                </li>
              ))}
            </ol>
            <HearStep grid={grid} beat={step.pulse} />
            <PlayIn
              key={step.key}
              ask={{ tap: step.key, instrument }}
              student={student}
              beat={step.pulse}
              hands
              only={["taps"]}
              measured={(v) => {
                choose(step.key); // what was measured stays in sight
                if (v.holds) setHeld([...held, step.key]);
              }}
            />
          </section>
        );
      }}
    </Shown>
  );
}

// bars is how often the cross-rhythm is heard, to speak along.
const bars = 4;

// HearStep sounds the cross-rhythm, the right hand high and the left low, and shows each syllable of its
// phrase when it is to be said.
function HearStep({ grid, beat }: { grid: Schemas["Grid"]; beat: number }) {
  const end = useRef<() => void>(undefined);
  const [said, setSaid] = useState<string>();
  useEffect(() => () => end.current?.(), []);
  const every = Array.from({ length: bars }, (_, bar) => bar);
  const tones = every.flatMap((bar) => [
    ...grid.right.map((c) => ({ onset: bar + c / grid.cells, length: 0.1, key: 72 })),
    ...grid.left.map((c) => ({ onset: bar + c / grid.cells, length: 0.1, key: 55 })),
  ]);
  const start = () => {
    setSaid("");
    const timers = every.flatMap((bar) =>
      grid.says.map((s) => window.setTimeout(() => setSaid(s.word), (bar + s.cell / grid.cells) * beat + 60)),
    );
    const stop = sing(tones, beat, bars, () => setSaid(undefined));
    end.current = () => {
      for (const t of timers) window.clearTimeout(t);
      stop();
    };
  };
  const sounding = said !== undefined;
  return (
    <p className="mt-2 flex items-center gap-4">
      <Button
        onClick={() => {
          if (!sounding) return start();
          end.current?.();
          setSaid(undefined);
        }}
      >
        {sounding ? say("workbench.stop") : say("workbench.hearBothSayAlong")}
      </Button>
      <span aria-hidden="true" className="text-head">
        {said}
      </span>
    </p>
  );
}
