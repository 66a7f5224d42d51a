import type { Schemas } from "../../api/client";
import { notKept, strandNames } from "../../parts/words";

// Facts are what the shelf has of an item.
export function Facts({ view }: { view: Schemas["ItemView"] }) {
  const { item } = view;
  const lines: [string, string][] = [
    ["Lane", strandNames[item.strand] ?? ""],
    ["Taste", item.taste ?? ""],
    ["Key and meter", [view.key, item.meter].filter(Boolean).join(", ")],
    ["Lowest, highest", view.lowest ? `${view.lowest} to ${view.highest}` : ""],
    ["Brings", view.brings.join(", ")],
    ["Needs", view.needs.join(", ")],
    ["Revisits", view.revisits.join(", ")],
    ["Focus points", item.points.map((p) => p.name).join(", ")],
    ["Parts", item.parts.join(", ")],
    ["Said before playing", item.cue ?? ""],
    ["Not kept from the file", notKept(view.unread)],
  ];
  return (
    <dl className="rounded bg-raised px-4 py-3">
      {lines
        .filter(([, text]) => text)
        .map(([name, text]) => (
          <div key={name} className="border-b border-faint py-1.5 last:border-0">
            <dt className="text-small text-soft">{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
    </dl>
  );
}
