import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { instrumentsView } from "../api/views";
import { say } from "../words/say";

export type Instrument = Schemas["InstrumentView"];

// The families as a heading says them.
export const families: Record<string, string> = {
  shared: say("parts.everyInstrument"),
  keyboard: say("parts.keyboards"),
  bowed: say("parts.bowedStrings"),
  plucked: say("parts.pluckedStrings"),
  other: say("parts.windsVoiceOthers"),
};

// useInstruments gives the studio's instruments, one by its id, and whether a player
// of one plays what is for another; and the exercises that are made for one.
export function useInstruments() {
  const view = useQuery(instrumentsView).data;
  const all = view?.instruments ?? [];
  const tonics = view?.tonics ?? {};
  const of = (id: string) => all.find((p) => p.id === id);
  const shelf = (id: string) => of(id)?.shelf ?? id;
  return {
    all,
    of,
    tonics,
    offers: (id: string) => view?.offers[id] ?? [],
    name: (id: string) => of(id)?.name ?? id,
    together: (a: string, b: string) => shelf(a) === shelf(b),
  };
}

type Props = { value: string; set: (id: string) => void; className: string; name?: string };

// PickInstrument chooses an instrument, by family.
export function PickInstrument({ value, set, className, name }: Props) {
  const { all } = useInstruments();
  const groups = Object.entries(Object.groupBy(all, (p) => p.family));
  return (
    <label>
      {say("parts.instrument")}
      <select name={name} className={className} value={value} onChange={(e) => set(e.target.value)}>
        {all.length === 0 && <option value={value}>{value}</option>}
        {groups.map(([family, list = []]) => (
          <optgroup key={family} label={families[family]}>
            {list.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}
