import { useQuery } from "@tanstack/react-query";
import { exerciseMade } from "../api/views";
import { say } from "../words/say";
import { Score } from "./Score";
import { Shown } from "./Told";

// Notes are those of an exercise as it is practised now, beside its marks.
export function Notes({ exercise, instrument }: { exercise: string; instrument: string }) {
  const made = useQuery(exerciseMade(exercise, instrument));
  return (
    <Shown query={made}>
      {(view) => (
        <section
          aria-label={say("parts.theNotesOf", { title: view.title })}
          className="min-h-24 overflow-hidden rounded bg-white p-2"
        >
          <h3 className="px-1 text-black">
            {view.title}
            {view.who && `, ${view.who}`}
          </h3>
          {view.xml && (
            <Score xml={view.xml} title={view.title} cut={{ bars: [1, view.bars.length], width: 1500, room: 2 }} />
          )}
        </section>
      )}
    </Shown>
  );
}
