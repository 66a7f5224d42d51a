import { say } from "../words/say";
import type { Stroke } from "./takes";

type Props = { hands: boolean; begin: number; take: (s: Stroke) => void };

// Pads are fields to tap, for each hand or one; times are in milliseconds from begin.
export function Pads({ hands, begin, take }: Props) {
  return (
    <div className="mt-3 flex gap-3">
      {(hands ? (["left", "right"] as const) : [undefined]).map((hand) => (
        <button
          key={hand ?? "tap"}
          type="button"
          onPointerDown={(e) => {
            e.preventDefault();
            take({ at: Math.max(0, e.timeStamp - begin), ...(hand && { hand }) });
          }}
          className="min-h-28 flex-1 touch-none rounded border-2 border-ink bg-faint text-large font-[620] select-none"
        >
          {hand ? say("parts.hand", { hand }) : say("parts.tapHere")}
        </button>
      ))}
    </div>
  );
}
