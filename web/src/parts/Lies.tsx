import { say } from "../words/say";
import type { Sound } from "./sound";
import { note } from "./words";

// Lies draws where notes lie: on keys, or on the neck of a stringed instrument. What
// sounds is filled.
type Props = {
  notes: Sound[];
  open: number[];
  now: string[];
  first?: string[];
  marked?: Set<number>;
  met?: Set<number>;
  of: string;
};

export function Lies({ notes, open, now, first = [], marked, met, of }: Props) {
  if (notes.length === 0) return null;
  return open.length > 0 ? (
    <Neck open={open} notes={notes} now={now} of={of} />
  ) : (
    <Keys notes={notes} now={now} first={first} marked={marked} met={met} of={of} />
  );
}

const blackKeys = [1, 3, 6, 8, 10];
const isBlack = (key: number) => blackKeys.includes(((key % 12) + 12) % 12);

type KeysProps = {
  notes: Sound[];
  now: string[];
  first: string[];
  marked?: Set<number>;
  met?: Set<number>;
  of: string;
};

// Keys draws the octaves that the notes lie in; marked ones, by pitch class, have a bar
// under their finger, and those where the hands meet a ring.
function Keys({ notes, now, first, marked, met, of }: KeysProps) {
  const low = Math.floor(Math.min(...notes.map((n) => n.key)) / 12) * 12;
  const high = Math.ceil((Math.max(...notes.map((n) => n.key)) + 1) / 12) * 12;
  const keys = Array.from({ length: high - low }, (_, i) => low + i);
  const whites = keys.filter((k) => !isBlack(k));
  const wide = 22;
  const left = (key: number) => {
    const white = whites.filter((k) => k < key).length;
    return isBlack(key) ? white * wide - 7 : white * wide;
  };
  const used = new Map(notes.map((n) => [n.key, n]));
  for (const n of notes) if (n.finger && !used.get(n.key)?.finger) used.set(n.key, n);
  const sounding = new Set(notes.filter((n) => now.includes(n.id)).map((n) => n.key));
  const begins = new Set(notes.filter((n) => first.includes(n.name)).map((n) => n.key));
  const tint = (key: number) =>
    sounding.has(key) ? "var(--ahead)" : used.has(key) ? "#d9c9f2" : isBlack(key) ? "#14262c" : "#fdfefe";
  return (
    <svg
      role="img"
      aria-label={say("parts.keysOf", { of, list: [...new Set(notes.map((n) => note(n.name)))].join(", ") })}
      viewBox={`0 0 ${whites.length * wide} 78`}
      className="h-[86px] max-w-full"
    >
      {[...whites, ...keys.filter(isBlack)].map((key) => {
        const middle = left(key) + (isBlack(key) ? 7 : wide / 2);
        return (
          <g key={key}>
            <rect
              x={left(key) + 0.5}
              y={0.5}
              width={isBlack(key) ? 14 : wide - 1}
              height={isBlack(key) ? 46 : 76}
              rx={2}
              fill={tint(key)}
              stroke={begins.has(key) ? "var(--ahead)" : "#14262c"}
              strokeWidth={begins.has(key) ? 2.4 : 0.8}
            />
            {used.get(key)?.finger && (
              <text
                x={middle}
                y={isBlack(key) ? 40 : 69}
                textAnchor="middle"
                fontSize={13}
                fontWeight={650}
                fill={sounding.has(key) ? "#fff" : "#14262c"}
              >
                {used.get(key)?.finger}
              </text>
            )}
            {used.has(key) && met?.has(key % 12) && (
              <circle cx={middle} cy={isBlack(key) ? 24 : 52} r={3.6} fill="none" stroke="#14262c" strokeWidth={1.8} />
            )}
            {used.has(key) && marked?.has(key % 12) && (
              <rect x={middle - 5} y={isBlack(key) ? 42 : 71} width={10} height={2.6} fill="#14262c" />
            )}
          </g>
        );
      })}
    </svg>
  );
}

// Neck draws the strings from the highest-sounding on top, and where they are
// stopped, in semitones from the open string at the left.
function Neck({ open, notes, now, of }: { open: number[]; notes: Sound[]; now: string[]; of: string }) {
  const far = Math.max(5, ...notes.map((n) => n.fret + 1));
  const step = 34;
  const apart = 17;
  const dots = new Map(notes.filter((n) => n.string > 0).map((n) => [`${n.string}:${n.fret}`, n]));
  const sounding = new Set(notes.filter((n) => now.includes(n.id)).map((n) => `${n.string}:${n.fret}`));
  const width = 26 + far * step;
  return (
    <svg
      role="img"
      aria-label={say("parts.stopsOf", {
        of,
        list: [...dots.values()]
          .map((n) =>
            say("parts.string", {
              string: n.string,
              value: n.fret === 0 ? say("parts.openString") : say("parts.finger2", { finger: n.finger }),
            }),
          )
          .join(", "),
      })}
      viewBox={`0 0 ${width} ${open.length * apart + 8}`}
      className="max-w-full"
      style={{ height: open.length * 20 + 10 }}
    >
      {Array.from({ length: far }, (_, i) => (
        <line
          // biome-ignore lint/suspicious/noArrayIndexKey: the frets stand in order
          key={i}
          x1={26 + i * step}
          x2={26 + i * step}
          y1={apart * 0.7}
          y2={open.length * apart - apart * 0.3}
          stroke="var(--line)"
          strokeWidth={i === 0 ? 4 : 1.5}
        />
      ))}
      {open.map((key, i) => (
        <line
          key={key}
          x1={26}
          x2={width}
          y1={(i + 0.7) * apart}
          y2={(i + 0.7) * apart}
          stroke="var(--ink-soft)"
          strokeWidth={0.8 + i * 0.25}
        />
      ))}
      {[...dots].map(([at, n]) => {
        const on = sounding.has(at);
        const x = n.fret === 0 ? 11 : 26 + (n.fret - 0.5) * step;
        return (
          <g key={at}>
            <circle
              cx={x}
              cy={(n.string - 0.3) * apart}
              r={7.8}
              fill={on ? "var(--ahead)" : "#d9c9f2"}
              stroke="#14262c"
              strokeWidth={0.8}
            />
            <text
              x={x}
              y={(n.string - 0.3) * apart + 4}
              textAnchor="middle"
              fontSize={11}
              fontWeight={650}
              fill={on ? "#fff" : "#14262c"}
            >
              {n.finger}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
