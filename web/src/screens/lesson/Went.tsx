import { tell } from "../../api/outbox";
import { told } from "./told";
import type { LessonView } from "./view";
import { Write } from "./Write";

const places = ["the beginning", "the middle", "the end"];

// Went notes the two places that the student says went well.
export function Went({ view, rung }: { view: LessonView; rung: string }) {
  const say = (text: string) => tell(view.student.id, { kind: "went_well", rung, text });
  const well = told(view, "went_well").flatMap((b) => (b.rung === rung ? [b.text] : []));
  return (
    <div className="flex flex-wrap items-center gap-2">
      <p className="min-w-36 flex-1 text-soft">
        {well.length > 0 ? `Went well: ${well.join(", ")}` : "Two places that went well?"}
      </p>
      {places.map((p) => (
        <button
          key={p}
          type="button"
          className="min-h-6 rounded border border-line px-2.5 py-1.5 hover:bg-faint"
          onClick={() => say(p)}
        >
          {p}
        </button>
      ))}
      <Write
        of={rung}
        name="Bar"
        hint="J"
        ask="Which place went well?"
        example="bars 5 to 6"
        done="Went well"
        save={say}
      />
    </div>
  );
}
