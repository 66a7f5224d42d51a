import { say } from "../words/say";

// A sign of tablature: which string, which fret, and when.
type Sign = { string: number; fret: number; onset: number };

type Props = { open: number; notes: Sign[]; bars?: number[]; now?: Set<number> };

const apart = 15;
const wide = 26;

// Tablature draws where each note is plucked: a line a string, the highest-sounding on
// top, the fret on it; in rows of four bars, with bar lines.
export function Tablature({ open, notes, bars = [], now }: Props) {
  const moments = [...new Set(notes.map((n) => n.onset))].sort((a, b) => a - b);
  const perRow = 32;
  const rows = Array.from({ length: Math.max(1, Math.ceil(moments.length / perRow)) }, (_, r) =>
    moments.slice(r * perRow, (r + 1) * perRow),
  );
  return (
    <div className="overflow-x-auto bg-white p-2 text-black">
      {rows.map((row) => (
        <svg
          key={row[0] ?? 0}
          role="img"
          aria-label={say("parts.tablature", {
            list: notes
              .filter((n) => row.includes(n.onset))
              .map((n) => say("parts.stringFret", { string: n.string, fret: n.fret }))
              .join(", "),
          })}
          viewBox={`0 0 ${row.length * wide + 24} ${open * apart + 12}`}
          style={{ width: row.length * wide + 24, maxWidth: "100%" }}
        >
          {Array.from({ length: open }, (_, i) => (
            <line
              // biome-ignore lint/suspicious/noArrayIndexKey: the strings stand in order
              key={i}
              x1={2}
              x2={row.length * wide + 22}
              y1={(i + 0.8) * apart}
              y2={(i + 0.8) * apart}
              stroke="#667"
              strokeWidth={0.9}
            />
          ))}
          {row.map((onset, i) => (
            <g key={onset}>
              {i > 0 && bars.some((b) => b > (row[i - 1] ?? 0) && b <= onset) && (
                <line
                  x1={i * wide + 4}
                  x2={i * wide + 4}
                  y1={0.8 * apart}
                  y2={(open - 0.2) * apart}
                  stroke="#14262c"
                  strokeWidth={1.4}
                />
              )}
              {notes
                .filter((n) => n.onset === onset && n.string > 0)
                .map((n) => (
                  <g key={n.string}>
                    <rect
                      x={i * wide + 10}
                      y={(n.string - 0.2) * apart - 8}
                      width={n.fret > 9 ? 20 : 13}
                      height={16}
                      fill={now?.has(onset) ? "#d9c9f2" : "#fff"}
                    />
                    <text
                      x={i * wide + 12}
                      y={(n.string - 0.2) * apart + 5}
                      fontSize={14}
                      fontWeight={600}
                      fill="#14262c"
                    >
                      {n.fret}
                    </text>
                  </g>
                ))}
            </g>
          ))}
        </svg>
      ))}
    </div>
  );
}
