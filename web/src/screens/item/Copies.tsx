import type { Schemas } from "../../api/client";

const formats = [
  { key: "musicxml", name: "MusicXML" },
  { key: "mxl", name: "Compressed MusicXML" },
  { key: "abc", name: "ABC" },
  { key: "midi", name: "MIDI" },
];

// Copies offers the score as files, and one with marks for a notation program.
export function Copies({ item, student, read }: { item: string; student: string; read: Schemas["ReadingView"] }) {
  const at = (query: string) => `/api/items/${item}/file?${query}${student ? `&student=${student}` : ""}`;
  return (
    <details className="rounded bg-raised px-4 py-3">
      <summary className="cursor-pointer font-[650]">Copies to take out</summary>
      <ul className="mt-1 divide-y divide-faint">
        {formats.map((f) => {
          const lost = read.losses[f.key] ?? [];
          return (
            <li key={f.key} className="py-1.5">
              <a href={at(`format=${f.key}`)} className="font-[620] underline underline-offset-4">
                {f.name}
              </a>
              <span className="block text-small text-soft">
                {lost.length === 0
                  ? "holds all of it"
                  : `does not hold ${lost.map((l) => `${l.what} (bar ${l.bar}${l.count > 1 ? ` and ${l.count - 1} more` : ""})`).join("; ")}`}
              </span>
            </li>
          );
        })}
        <li className="py-1.5">
          <a
            href={at("format=musicxml&layers=direction,fingers,positions,patterns,tablature")}
            className="font-[620] underline underline-offset-4"
          >
            MusicXML with the marks
          </a>
          <span className="block text-small text-soft">
            directions, fingers, positions and figures written into it, for a notation program
          </span>
        </li>
      </ul>
    </details>
  );
}
