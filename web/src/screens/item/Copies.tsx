import type { Schemas } from "../../api/client";

// Copies offers the score as files, and one with marks for a notation program.
export function Copies({ item, student, read }: { item: string; student: string; read: Schemas["ReadingView"] }) {
  const at = (query: string) => `/api/items/${item}/file?${query}${student ? `&student=${student}` : ""}`;
  return (
    <details className="rounded bg-raised px-4 py-3">
      <summary className="cursor-pointer font-[650]">Copies to take out</summary>
      <ul className="mt-1 divide-y divide-faint">
        {read.copies.map((c) => (
          <li key={c.format} className="py-1.5">
            <a href={at(`format=${c.format}`)} className="font-[620] underline underline-offset-4">
              {c.name}
            </a>
            <span className="block text-small text-soft">
              {c.losses.length === 0
                ? "holds all of it"
                : `does not hold ${c.losses.map((l) => `${l.what} (bar ${l.bar}${l.count > 1 ? ` and ${l.count - 1} more` : ""})`).join("; ")}`}
            </span>
          </li>
        ))}
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
