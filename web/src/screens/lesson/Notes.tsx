import { useQuery } from "@tanstack/react-query";
import { scoreText } from "../../api/views";
import { Score } from "../../parts/Score";
import { Shown } from "../../parts/Told";

// Notes are those of an exercise or a reading step, beside its marks.
export function Notes({ item, title, bars }: { item: string; title: string; bars: number[] }) {
  const xml = useQuery(scoreText(item));
  const [from, to] = bars;
  const cut = from && to ? { bars: [from, to] as [number, number], width: 1500, room: 2 } : undefined;
  return (
    <section aria-label={`The notes of ${title}`} className="min-h-24 overflow-hidden rounded">
      <Shown query={xml}>
        {(text) => (
          <div className={cut ? "bg-white p-2" : "-my-10"}>
            {/* the engraver's margins are a page's; here the line is enough */}
            <Score xml={text} title={title} cut={cut} />
          </div>
        )}
      </Shown>
    </section>
  );
}
