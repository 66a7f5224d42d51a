import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import type { LessonView } from "./LessonScreen";
import { told } from "./told";

type Props = { view: LessonView; block: Schemas["Block"] };

// HeadStart marks one small task of a skill to come. Success is not asked:
// done once is done.
export function HeadStart({ view, block }: Props) {
  const prepared = told(view, "prepared").some((b) => b.skill === block.skill && b.step === block.step);
  const done = prepared
    ? undefined
    : () => tell(view.student.id, { kind: "prepared", skill: block.skill ?? "", step: block.step ?? 1 });
  useKeys({ Enter: done, d: done });
  return (
    <div className="mt-5">
      {prepared ? (
        <p className="rounded border-l-4 border-ahead bg-ground p-3 text-large">Done once. It goes on at home.</p>
      ) : (
        <Button look="main" className="text-large" hint="D" onClick={done}>
          Done once today
        </Button>
      )}
    </div>
  );
}
