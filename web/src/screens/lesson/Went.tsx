import { tell } from "../../api/outbox";
import { say } from "../../words/say";
import { told } from "./told";
import type { LessonView } from "./view";
import { Write } from "./Write";

const places = [say("lesson.theBeginning"), say("lesson.theMiddle"), say("lesson.theEnd")];

// Went notes the two places that the student says went well.
export function Went({ view, rung }: { view: LessonView; rung: string }) {
  const keep = (text: string) => tell(view.student.id, { kind: "went_well", rung, text });
  const well = told(view, "went_well").flatMap((b) => (b.rung === rung ? [b.text] : []));
  return (
    <div className="flex flex-wrap items-center gap-2">
      <p className="min-w-36 flex-1 text-soft">
        {well.length > 0 ? say("lesson.wentWell", { list: well.join(", ") }) : say("lesson.twoPlacesWentWell")}
      </p>
      {places.map((p) => (
        <button
          key={p}
          type="button"
          className="min-h-6 rounded border border-line px-2.5 py-1.5 hover:bg-faint"
          onClick={() => keep(p)}
        >
          {p}
        </button>
      ))}
      <Write
        of={rung}
        name={say("lesson.bar")}
        hint="J"
        ask={say("lesson.whichPlaceWentWell")}
        example={say("lesson.bars56")}
        done={say("lesson.wentWell2")}
        save={keep}
      />
    </div>
  );
}
