import type { Schemas } from "../../api/client";
import { counted } from "../../parts/felts";
import { say } from "../../words/say";

const level = { much: say("week.much"), little: say("week.little"), untold: say("week.notLogged") };

// Home says what came back from home in four weeks, practice and enjoyment apart,
// and what to try.
export function Home({ home }: { home: Schemas["Answer"] }) {
  const words = counted(home.words);
  return (
    <section aria-label={say("week.fromHome")} className="border-t border-line pt-3">
      <h2>{say("week.fromHomeFourWeeks")}</h2>
      <dl className="my-1 grid grid-cols-[auto_1fr] gap-x-3">
        <dt className="text-soft">{say("week.practice")}</dt>
        <dd>
          {level[home.practice]}
          {home.practice !== "untold" && say("week.ofDays", { days: home.days, asked: home.asked })}
        </dd>
        <dt className="text-soft">{say("week.joy")}</dt>
        <dd>
          {level[home.joy]}
          {words && `: ${words}`}
        </dd>
      </dl>
      <ul className="space-y-1">
        {home.try.map((r) => (
          <li key={r.code}>{r.says}</li>
        ))}
      </ul>
    </section>
  );
}
