import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { Button } from "./Button";
import { replay } from "./sound";

type View = Schemas["PlayedView"];
type Props = { view: View; before?: View; kept: boolean; keep?: () => void; student: string; tapped: boolean };

const per = (x: number) => `${(100 * x).toFixed(1)} %`;

const handNamed: Record<string, string> = { left: say("workbench.leftHand"), right: say("workbench.rightHand") };

// TakeShown says of a take one figure and one finger to think of, large; the rest is there for who asks.
export function TakeShown({ view, before, kept, keep, student, tapped }: Props) {
  const even = view.said.length === 0;
  const first = view.why[0];
  return (
    <div className="mt-3 border-t border-line pt-3" data-testid="take">
      <div className="flex flex-wrap items-start gap-3">
        <div className="mr-auto min-w-64">
          <p role="status" className={`text-head ${even || view.holds ? "text-keep" : "text-ink"}`}>
            {tapped && view.holds
              ? say("parts.holdsOff", {
                  list: view.hands
                    .map((h) => say("parts.handMs", { hand: h.hand && handNamed[h.hand], ms: Math.round(h.off) }))
                    .join(", "),
                })
              : first?.says}
          </p>
          {!(tapped && view.holds) && (
            <p className="mt-1 text-large">
              <span className="text-soft">{say("parts.thinkOf")}</span>
              {view.think.says}
            </p>
          )}
          {before && <p className="mt-1 text-soft">{say("parts.takeBefore", { says: before.why[0]?.says })}</p>}
        </div>
        <Again strokes={view.strokes} />
        {keep && (
          <Button hint="K" disabled={kept} onClick={keep}>
            {kept ? say("parts.savedSProgress", { student }) : say("parts.saveSProgress", { student })}
          </Button>
        )}
      </div>
      {view.why.length > 1 && (
        <ul aria-label={say("parts.alsoHeard")} className="mt-2 list-disc pl-5 text-soft">
          {view.why.slice(1).map((r) => (
            <li key={r.code + JSON.stringify(r.args)}>{r.says}</li>
          ))}
        </ul>
      )}
      <Line view={view} />
      <dl className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-soft">
        <Figure name={say("parts.notesRight")} is={say("parts.nOfM", { n: view.right, m: view.asked })} />
        {view.beat > 0 && (
          <Figure name={say("parts.beat")} is={say("parts.aMinute", { amount: Math.round(60000 / view.beat) })} />
        )}
        {view.hands.map((h) => (
          <Figure
            key={h.hand}
            name={h.hand ? say("parts.handOff", { hand: h.hand }) : say("parts.offTheBeat")}
            is={say("parts.ms", { ms: Math.round(h.off) })}
          />
        ))}
        {view.interval > 0 && (
          <>
            <Figure name={say("parts.spreadName")} is={per(view.spread)} />
            <Figure name={say("parts.longToShort")} is={view.lope.toFixed(2)} />
            <Figure name={say("parts.driftName")} is={per(view.drift)} />
            <Figure
              name={say("parts.noticedFrom")}
              is={say("parts.partAndMs", { part: per(view.heard), ms: Math.round(view.heard * view.interval) })}
            />
          </>
        )}
      </dl>
      {view.fingers.length > 0 && (
        <table className="mt-2">
          <caption className="sr-only">{say("parts.eachFinger")}</caption>
          <thead>
            <tr className="text-left text-soft">
              <th className="pr-4 font-[580]">{say("parts.finger")}</th>
              <th className="pr-4 font-[580]">{say("parts.comes")}</th>
              <th className="font-[580]">{say("parts.strengthBesideOthers")}</th>
            </tr>
          </thead>
          <tbody>
            {view.fingers.map((f) => (
              <tr key={f.hand + f.finger}>
                <td className="pr-4 font-[620]">
                  {handNamed[f.hand] ?? f.hand} {f.finger}
                </td>
                <td className="pr-4">
                  {Math.abs(f.late) < 0.5
                    ? say("parts.inTime")
                    : f.late > 0
                      ? say("parts.msLate", { ms: Math.abs(Math.round(f.late)) })
                      : say("parts.msEarly", { ms: Math.abs(Math.round(f.late)) })}
                </td>
                <td>
                  <Heft heft={f.heft} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

function Figure({ name, is }: { name: string; is: string }) {
  return (
    <div className="flex gap-1.5">
      <dt>{name}</dt>
      <dd className="font-[620] text-ink">{is}</dd>
    </div>
  );
}

// Heft draws how strong a finger is beside the others: a bar from the middle.
function Heft({ heft }: { heft: number }) {
  const width = Math.min(Math.abs(heft), 40) * 1.5;
  return (
    <span className="flex items-center gap-2">
      <span aria-hidden="true" className="relative block h-2.5 w-32 rounded bg-faint">
        <span className="absolute inset-y-0 left-1/2 w-px bg-line" />
        <span
          className="absolute inset-y-0 rounded bg-now"
          style={heft < 0 ? { right: "50%", width } : { left: "50%", width }}
        />
      </span>
      {heft > 0 ? "+" : ""}
      {Math.round(heft)}
    </span>
  );
}

// Line draws each note where it came beside the steady line: above it late, below it early; as large as it
// was strong; a cross where it was wrong, a ring where it was missing.
function Line({ view }: { view: View }) {
  const notes = view.notes.slice(0, 96);
  if (view.interval === 0) return null;
  const wide = Math.max(10, Math.min(22, 900 / notes.length));
  const scale = Math.max(view.heard * view.interval * 2, ...notes.map((n) => Math.abs(n.off)));
  const y = (off: number) => 34 - (off / scale) * 28;
  const heard = (view.heard * view.interval * 28) / scale;
  return (
    <svg
      role="img"
      aria-label={say("parts.eachNoteBesideSteadyLine")}
      viewBox={`0 0 ${wide * notes.length + 10} 68`}
      className="mt-2 max-h-20 w-full max-w-4xl"
      preserveAspectRatio="xMinYMid meet"
    >
      <rect x="0" y={34 - heard} width="100%" height={2 * heard} className="fill-faint" />
      <line x1="0" x2="100%" y1="34" y2="34" className="stroke-line" />
      {notes.map((n, i) => {
        const x = wide * i + wide / 2 + 3;
        const r = Math.max(2.2, Math.min(6, 3.6 + n.heft / 10));
        if (n.went === "missing")
          // biome-ignore lint/suspicious/noArrayIndexKey: notes stand in order and do not move
          return <circle key={i} cx={x} cy={34} r={3.5} className="fill-none stroke-warn" strokeWidth="1.5" />;
        if (n.went === "wrong")
          return (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: notes stand in order and do not move
              key={i}
              d={`M${x - 3} ${y(n.off) - 3}l6 6m0 -6l-6 6`}
              className="stroke-warn"
              strokeWidth="1.6"
            />
          );
        // biome-ignore lint/suspicious/noArrayIndexKey: notes stand in order and do not move
        return <circle key={i} cx={x} cy={y(n.off)} r={r} className="fill-now" />;
      })}
    </svg>
  );
}

// Again sounds a take as it was played.
function Again({ strokes }: { strokes: View["strokes"] }) {
  const end = useRef<() => void>(undefined);
  const [sounding, setSounding] = useState(false);
  useEffect(() => () => end.current?.(), []);
  return (
    <Button
      onClick={() => {
        if (sounding) {
          end.current?.();
          return setSounding(false);
        }
        setSounding(true);
        end.current = replay(strokes, () => setSounding(false));
      }}
    >
      {sounding ? say("parts.stop") : say("parts.hearTake")}
    </Button>
  );
}
