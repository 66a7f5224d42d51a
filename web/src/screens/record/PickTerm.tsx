import type { Schemas } from "../../api/client";
import { say } from "../../words/say";

type Props = { terms: Schemas["TermSpan"][]; shown: number; choose: (from: string) => void };

// PickTerm chooses among the terms that have begun.
export function PickTerm({ terms, shown, choose }: Props) {
  if (terms.length < 2) return null;
  return (
    <label className="text-soft">
      {say("record.term")}{" "}
      <select
        className="rounded border border-line bg-ground px-2 py-1.5 text-ink"
        value={terms[shown]?.from}
        onChange={(e) => choose(e.target.value)}
      >
        {terms.map((t) => (
          <option key={t.from} value={t.from}>
            {t.name} {t.from.slice(0, 4)}
          </option>
        ))}
      </select>
    </label>
  );
}
