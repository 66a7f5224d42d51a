import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Key } from "../../parts/Button";
import { CardFace } from "../../parts/CardFace";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";

type Props = { student: string; rung: string; deck: Schemas["DeckView"] };

const outcomes = [
  { key: "k", outcome: "pass", name: say("lesson.knowsIt") },
  { key: "i", outcome: "nearly", name: say("lesson.nearly") },
  { key: "z", outcome: "not-yet", name: say("lesson.notYet") },
] as const;

// Cards are asked one after the other: shown, answered, marked with one key. The answer
// stands under a touch until the card is marked.
export function Cards({ student, rung, deck }: Props) {
  const [asked] = useState(deck.cards); // those of this sitting, whatever the marks bring up next
  const [at, go] = useState(0);
  const [open, setOpen] = useState(false);
  const card = asked[at];
  const mark = (outcome: "pass" | "nearly" | "not-yet") => {
    if (!card) return;
    tell(student, { kind: "card_answered", rung, card: card.id, outcome });
    setOpen(false);
    go(at + 1);
  };
  useKeys({
    ...Object.fromEntries(outcomes.map((o) => [o.key, card ? () => mark(o.outcome) : undefined])),
    h: card ? () => setOpen(!open) : undefined,
  });
  return (
    <section aria-label={say("lesson.cards")} className="rounded border border-line p-3">
      <p className="flex items-baseline justify-between text-soft">
        <span>{card ? say("lesson.cardOf", { n: at + 1, asked: asked.length }) : say("lesson.allAskedToday")}</span>
        <span>{say("lesson.ofKnown", { known: deck.known, of: deck.of })}</span>
      </p>
      {card && (
        <>
          <div className="my-2 flex min-h-32 flex-wrap items-center gap-5">
            <CardFace card={card} />
            <div className="min-w-56 flex-1 text-large">
              <p className="font-[620]">{card.asks}</p>
              <button
                type="button"
                onClick={() => setOpen(!open)}
                aria-expanded={open}
                className="mt-2 inline-flex min-h-9 items-center gap-2 text-left rounded border border-line px-2.5 hover:bg-faint"
              >
                <Key>H</Key> {open ? card.right : say("lesson.showWhatRight")}
              </button>
            </div>
          </div>
          <fieldset className="flex flex-wrap gap-2.5">
            <legend className="sr-only">{say("lesson.howWasAnswered")}</legend>
            {outcomes.map((o) => (
              <button
                key={o.key}
                type="button"
                onClick={() => mark(o.outcome)}
                className="flex min-h-12 items-center gap-3 rounded border-[1.5px] border-line px-4 text-large font-[620] hover:bg-faint"
              >
                <Key>{o.key.toUpperCase()}</Key> {o.name}
              </button>
            ))}
          </fieldset>
        </>
      )}
    </section>
  );
}
