import type { Schemas } from "../api/client";

// Turn asks a card and shows the answer when it is turned.
export function Turn({ card }: { card: Schemas["CardLine"] }) {
  return (
    <details>
      <summary className="min-h-6 cursor-pointer">{card.asks}</summary>
      <span className="block border-l-4 border-keep pl-2">{card.right}</span>
    </details>
  );
}
