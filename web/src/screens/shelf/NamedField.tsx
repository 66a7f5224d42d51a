import { useId } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { say } from "../../words/say";

type Named = Schemas["Named"];
type Props = { name: string; one: string; list: Named[]; set: (list: Named[]) => void };

// NamedField edits focus points or parts, each on a line of its own: a name may change
// and the marks that students have on it stay.
export function NamedField({ name, one, list, set }: Props) {
  const id = useId();
  return (
    <fieldset>
      <legend>{name}</legend>
      <ul className="space-y-1">
        {list.map((n, i) => (
          <li key={n.id || `new ${i}`} className="flex gap-1">
            <input
              aria-label={`${one} ${i + 1}`}
              id={`${id}${i}`}
              maxLength={200}
              className="block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal text-ink"
              value={n.name}
              onChange={(e) => set(list.map((m, k) => (k === i ? { ...m, name: e.target.value } : m)))}
            />
            <button
              type="button"
              aria-label={say("shelf.takeOff", { n: n.name || one })}
              className="px-2 font-[650]"
              onClick={() => set(list.filter((_, k) => k !== i))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <Button look="quiet" className="mt-1" onClick={() => set([...list, { id: "", name: "" }])}>
        {say("shelf.addNamed", { one })}
      </Button>
    </fieldset>
  );
}
