import { useQuery } from "@tanstack/react-query";
import { scoreText } from "../../api/views";
import { Score } from "../../parts/Score";
import { Shown } from "../../parts/Told";

// Notes are those of an exercise or a reading step, beside its marks.
export function Notes({ item, title }: { item: string; title: string }) {
  const xml = useQuery(scoreText(item));
  return (
    <section aria-label={`The notes of ${title}`} className="min-h-24 overflow-hidden rounded">
      <Shown query={xml}>
        {(text) => (
          <div className="-my-10">
            {/* the engraver's margins are a page's; here the line is enough */}
            <Score xml={text} title={title} />
          </div>
        )}
      </Shown>
    </section>
  );
}
