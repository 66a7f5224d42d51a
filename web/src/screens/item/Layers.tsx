import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { layerView } from "../../api/views";
import { Key } from "../../parts/Button";
import type { Band, Verse } from "../../parts/engraving";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";

type Read = Schemas["ReadingView"];

// What of a page is switched on.
export type Switched = { layers: string[]; tablature?: "under" | "instead" };

// The layers, each with its key.
const names: Record<string, { name: string; key: string }> = {
  direction: { name: say("item.direction"), key: "d" },
  landmarks: { name: say("item.landmarks"), key: "l" },
  intervals: { name: say("item.intervals"), key: "i" },
  names: { name: say("item.names"), key: "n" },
  fingers: { name: say("item.fingers"), key: "f" },
  positions: { name: say("item.positions"), key: "p" },
  patterns: { name: say("item.patterns"), key: "t" },
  chunks: { name: say("item.chunks"), key: "c" },
  tablature: { name: say("item.stringFret"), key: "s" },
  rhythm: { name: say("item.rhythmWords"), key: "w" },
  new: { name: say("item.whatNew"), key: "o" },
};

// usePage fetches the layers that are on and turns them into what the score draws.
export function usePage(
  read: Read,
  on: Switched,
  item: string,
  student: string,
): { verses: Verse[]; bands: Band[]; fresh: string[] } {
  const shown = useQueries({
    queries: read.layers.filter((l) => on.layers.includes(l)).map((l) => layerView(item, l, student)),
    combine: layersThere,
  });
  return useMemo(() => {
    const order = read.hands.map((_, staff) => read.sounds.filter((s) => s.staff === staff).map((s) => s.id));
    const between = (staff: number, from: string, to: string) => {
      const ids = order[staff] ?? [];
      return ids.slice(ids.indexOf(from), ids.indexOf(to) + 1);
    };
    return {
      verses: shown
        .filter((l) => l.labels.length > 0)
        .map((l) => Object.fromEntries(l.labels.map((label) => [label.id, label.text]))),
      // the lower staff has no room for brackets over brackets
      bands: shown.flatMap((l) =>
        l.spans
          .filter((s) => s.level < (s.staff === 0 ? 2 : 1))
          .map((s) => ({ ...s, kind: l.name, notes: between(s.staff, s.from, s.to) })),
      ),
      fresh: on.layers.includes("new") ? read.fresh : [],
    };
  }, [read, on, shown]);
}

// layersThere are the layers that have come.
const layersThere = (queries: { data?: Schemas["Layer"] }[]) => queries.flatMap((q) => q.data ?? []);

// Layers switches what stands on the page.
export function Layers({
  read,
  frets,
  on,
  set,
}: {
  read: Read;
  frets: boolean;
  on: Switched;
  set: (on: Switched) => void;
}) {
  const there = [...read.layers, ...(read.fresh.length > 0 ? ["new"] : [])];
  const flip = (name: string) =>
    set({ ...on, layers: on.layers.includes(name) ? on.layers.filter((n) => n !== name) : [...on.layers, name] });
  useKeys(Object.fromEntries(there.map((name) => [names[name]?.key ?? name, () => flip(name)])));
  return (
    <div
      role="toolbar"
      aria-label={say("item.layersPage")}
      className="mb-2 flex flex-wrap items-center gap-1.5 print:hidden"
    >
      {there.map((name) => {
        const pressed = on.layers.includes(name);
        return (
          <button
            key={name}
            type="button"
            aria-pressed={pressed}
            onClick={() => flip(name)}
            className={`inline-flex items-center gap-1.5 rounded border px-2.5 py-1 font-[580] ${
              pressed ? "border-ink bg-ink text-raised" : "border-line bg-raised hover:bg-faint"
            }`}
          >
            {names[name]?.name ?? name}
            <Key>{names[name]?.key.toUpperCase()}</Key>
          </button>
        );
      })}
      {frets && (
        <select
          aria-label={say("item.tablature")}
          className="rounded border border-line bg-raised px-2 py-1"
          value={on.tablature ?? ""}
          onChange={(e) => set({ ...on, tablature: (e.target.value || undefined) as Switched["tablature"] })}
        >
          <option value="">{say("item.noTablature")}</option>
          <option value="under">{say("item.tablatureUnderStaff")}</option>
          <option value="instead">{say("item.tablatureInstead")}</option>
        </select>
      )}
    </div>
  );
}
