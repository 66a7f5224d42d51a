import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { Score } from "./Score";
import { Tablature } from "./Tablature";

// CardFace is what a card shows: notes, or tablature.
export function CardFace({ card }: { card: Schemas["CardView"] }) {
  return (
    <div className="min-w-56 max-w-md flex-1 overflow-hidden rounded bg-white">
      {card.xml ? (
        <Score xml={card.xml} title={say("parts.theCard")} cut={{ bars: [1, 1], width: 420, room: 2 }} />
      ) : (
        <Tablature open={card.strings} notes={card.stops.map((s, i) => ({ ...s, onset: i }))} />
      )}
    </div>
  );
}
