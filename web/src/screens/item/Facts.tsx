import type { Schemas } from "../../api/client";
import { notKept, strandNames } from "../../parts/words";
import { say } from "../../words/say";

// Facts are what the shelf has of an item.
export function Facts({ view }: { view: Schemas["ItemView"] }) {
  const { item } = view;
  const lines: [string, string][] = [
    [say("item.area"), strandNames[item.strand] ?? ""],
    [say("item.taste"), item.taste ?? ""],
    [say("item.keyMeter"), [view.key, item.meter].filter(Boolean).join(", ")],
    [say("item.lowestHighest"), view.lowest ? say("item.range", { low: view.lowest, high: view.highest }) : ""],
    [say("item.brings"), view.brings.join(", ")],
    [say("item.needs"), view.needs.join(", ")],
    [say("item.revisits"), view.revisits.join(", ")],
    [say("item.goals"), item.points.map((p) => p.name).join(", ")],
    [say("item.parts"), item.parts.join(", ")],
    [say("item.saidBeforePlaying"), item.cue ?? ""],
    [say("item.notKeptFromFile"), notKept(view.unread)],
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
