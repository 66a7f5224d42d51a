import { Fragment } from "react";
import type { Schemas } from "../../api/client";
import type { Sound } from "../../parts/sound";
import { note } from "../../parts/words";

type Read = Schemas["ReadingView"];

// Hand says how a chunk begins and draws where its notes lie: on keys, or on
// the neck of a stringed instrument. What sounds is filled.
export function Hand({
  read,
  chunk,
  staves,
  now,
}: {
  read: Read;
  chunk: Schemas["Chunk"];
  staves: number[];
  now: string[];
}) {
  const from = read.sounds.find((s) => s.id === chunk.fromId)?.onset ?? 0;
  const to = read.sounds.find((s) => s.id === chunk.toId)?.onset ?? from;
  const notes = read.sounds.filter((s) => staves.includes(s.staff) && s.onset >= from && s.onset <= to);
  const starts = chunk.starts ?? [{ hand: chunk.hand, ...chunk.start }];
  const fingerOf = (finger: string) => (finger === "0" ? "open string" : finger && `finger ${finger}`);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      <p className="min-w-44 flex-1">
        Begins with the{" "}
        {starts.map((s, i) => (
          <Fragment key={s.hand}>
            {i > 0 && ", the "}
            {s.hand} hand, <b className="font-[650]">{fingerOf(s.finger)}</b> on{" "}
            <b className="font-[650]">{note(s.key)}</b>
          </Fragment>
        ))}
        ; {chunk.notes} notes.
      </p>
      {read.open.length > 0 ? (
        <Neck open={read.open} notes={notes} now={now} />
      ) : (
        <Keys notes={notes} now={now} first={starts.map((s) => s.key)} />
      )}
    </div>
  );
}

const blackKeys = [1, 3, 6, 8, 10];
const isBlack = (key: number) => blackKeys.includes(((key % 12) + 12) % 12);

// Keys draws the octaves that the notes lie in.
function Keys({ notes, now, first }: { notes: Sound[]; now: string[]; first: string[] }) {
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
      aria-label={`Keys of this chunk: ${[...new Set(notes.map((n) => note(n.name)))].join(", ")}`}
      viewBox={`0 0 ${whites.length * wide} 78`}
      className="h-[86px] max-w-full"
    >
      {[...whites, ...keys.filter(isBlack)].map((key) => (
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
              x={left(key) + (isBlack(key) ? 7 : wide / 2)}
              y={isBlack(key) ? 40 : 69}
              textAnchor="middle"
              fontSize={13}
              fontWeight={650}
              fill={sounding.has(key) ? "#fff" : "#14262c"}
            >
              {used.get(key)?.finger}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}

// Neck draws the strings from the highest-sounding on top, and where they are
// stopped, in semitones from the open string at the left.
function Neck({ open, notes, now }: { open: number[]; notes: Sound[]; now: string[] }) {
  const far = Math.max(5, ...notes.map((n) => n.fret + 1));
  const step = 34;
  const apart = 17;
  const dots = new Map(notes.filter((n) => n.string > 0).map((n) => [`${n.string}:${n.fret}`, n]));
  const sounding = new Set(notes.filter((n) => now.includes(n.id)).map((n) => `${n.string}:${n.fret}`));
  const width = 26 + far * step;
  return (
    <svg
      role="img"
      aria-label={`Stops of this chunk: ${[...dots.values()].map((n) => `string ${n.string} ${n.fret === 0 ? "open" : `finger ${n.finger}`}`).join(", ")}`}
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
