import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { scoreText } from "../../api/views";
import { Shown } from "../../parts/Told";

const Score = lazy(() => import("../../parts/Score").then((m) => ({ default: m.Score })));

// Notes are those of an exercise or a reading step, beside its marks: the engraver is
// fetched when they are first shown.
export function Notes({ item, title }: { item: string; title: string }) {
  const xml = useQuery(scoreText(item));
  return (
    <section aria-label={`The notes of ${title}`} className="min-h-24 overflow-hidden rounded">
      <Shown query={xml}>
        {(text) => (
          <Suspense>
            {/* the engraver's margins are a page's; here the line is enough */}
            <div className="-my-10">
              <Score xml={text} title={title} />
            </div>
          </Suspense>
        )}
      </Shown>
    </section>
  );
}
