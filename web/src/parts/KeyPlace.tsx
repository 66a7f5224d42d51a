import type { Schemas } from "../api/client";
import { say } from "../words/say";

type Hand = { finger: string; key: string; hand: string };

const white = ["C", "D", "E", "F", "G", "A", "B"];
const black: Record<string, number> = { C: 1, D: 2, F: 4, G: 5, A: 6 }; // drawn right of it
const [wide, tall] = [17, 52];

// KeyPlace draws the octave in which a hand begins, the finger on its key, and the middle C
// where it is that octave's. The words beside it say the same.
export function KeyPlace({ start }: { start: Schemas["Start"] }) {
  if (!start.draw) return null;
  const hands: Hand[] = start.starts?.length ? start.starts : [start];
  return (
    <span aria-hidden="true" className="flex flex-wrap gap-3 py-1" data-testid="place">
      {hands.map((h) => (
        <span key={h.key + h.finger} className="text-small leading-none">
          <Keys named={h.key} finger={h.finger} />
          {start.starts?.length ? say("parts.hand", { hand: h.hand }) : ""}
        </span>
      ))}
    </span>
  );
}

function Keys({ named, finger }: { named: string; finger: string }) {
  const parts = /^([A-G])([#b]*)(\d)$/.exec(named);
  if (!parts) return null;
  const [, letter = "", accidental = "", octave] = parts;
  const at = white.indexOf(letter);
  const left = accidental === "b" ? white[at - 1] : letter;
  const onBlack = accidental.length === 1 && left !== undefined && left in black;
  const x = onBlack ? (black[left] ?? 0) * wide : at * wide + wide / 2;
  const y = onBlack ? 22 : 41;
  return (
    <svg width={7 * wide + 2} height={tall + 2} viewBox={`-1 -1 ${7 * wide + 2} ${tall + 2}`} className="text-ink">
      <title>{say("parts.fingerOn", { finger, named })}</title>
      {white.map((w, i) => (
        <rect key={w} x={i * wide} width={wide} height={tall} fill="white" stroke="currentColor" />
      ))}
      {Object.entries(black).map(([w, i]) => (
        <rect key={w} x={i * wide - 5.5} width={11} height={31} fill="currentColor" />
      ))}
      {octave === "4" && letter !== "C" && (
        <text x={wide / 2} y={tall - 3} textAnchor="middle" fontSize="9" fill="black">
          C
        </text>
      )}
      <circle cx={x} cy={y} r="8" className="fill-now" stroke="white" strokeWidth="1.5" />
      <text x={x} y={y + 3.8} textAnchor="middle" fontSize="11" fontWeight="700" fill="white">
        {finger}
      </text>
    </svg>
  );
}
