import type { Schemas } from "../../api/client";
import { plural, sentence } from "../../parts/words";

const level = { much: "much", little: "little", untold: "not told" };

// Home says what came back from home in four weeks, practice and enjoyment apart,
// and what to try.
export function Home({ home }: { home: Schemas["Answer"] }) {
  const words = Object.entries(home.words).sort((a, b) => b[1] - a[1]);
  return (
    <section aria-label="From home" className="border-t border-line pt-3">
      <h2>From home, four weeks</h2>
      <dl className="my-1 grid grid-cols-[auto_1fr] gap-x-3">
        <dt className="text-soft">Practice</dt>
        <dd>
          {level[home.practice]}
          {home.practice !== "untold" && `, ${home.days} of ${plural(home.asked, "day")}`}
        </dd>
        <dt className="text-soft">Joy</dt>
        <dd>
          {level[home.joy]}
          {words.length > 0 && `: ${words.map(([w, n]) => `${w} ${n}×`).join(", ")}`}
        </dd>
      </dl>
      <ul className="space-y-1">
        {home.try.map((r) => (
          <li key={r.code}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}
