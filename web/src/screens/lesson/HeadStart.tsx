import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { scoreText } from "../../api/views";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { Notes } from "../../parts/Notes";
import { Score } from "../../parts/Score";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { told } from "./told";
import type { LessonView } from "./view";

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
      {block.exercise && (
        <div className="mb-3">
          <Notes exercise={block.exercise} instrument={view.student.instrument} />
        </div>
      )}
      {block.tune && <Tune item={block.tune} minor={block.old === "minor"} />}
      {prepared ? (
        <p className="rounded border-l-4 border-ahead bg-ground p-3 text-large">{say("lesson.doneOnceGoesHome")}</p>
      ) : (
        <Button look="main" className="text-large" hint="D" onClick={done}>
          {say("lesson.doneOnceToday")}
        </Button>
      )}
    </div>
  );
}

// Tune is the old tune that a task is done on, written out in the form it asks.
function Tune({ item, minor }: { item: string; minor: boolean }) {
  const xml = useQuery(scoreText(item, undefined, minor));
  return (
    <section aria-label={say("lesson.oldTune")} className="-my-4 mb-3">
      <Shown query={xml}>{(text) => <Score xml={text} title={say("lesson.oldTune2")} />}</Shown>
    </section>
  );
}
