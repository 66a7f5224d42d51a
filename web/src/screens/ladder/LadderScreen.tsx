import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { ladderView } from "../../api/views";
import { Granted } from "../../parts/Granted";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { FirstThings } from "./FirstThings";
import { Lanes } from "./Lanes";
import { Mixture } from "./Mixture";
import { PlaceRung } from "./PlaceRung";
import { RungCard } from "./RungCard";
import { Suggestions } from "./Suggestions";
import { Together } from "./Together";

// LadderScreen: time runs upward, now is a line, four lanes; beside it what
// follows, or the rung that is chosen.
export function LadderScreen() {
  const { student } = useParams({ from: "/inside/students/$student/ladder" });
  const query = useQuery(ladderView(student));
  const { rung: chosen = "" } = useSearch({ from: "/inside/students/$student/ladder" });
  const go = useNavigate({ from: "/students/$student/ladder" });
  const choose = (rung: string) => void go({ search: rung ? { rung } : {}, resetScroll: false });
  return (
    <Shown query={query}>
      {(view) => {
        const rung = view.rungs.find((r) => r.id === chosen);
        return (
          <main className="flex flex-1 flex-wrap gap-3.5 px-4 pb-3 lg:flex-nowrap">
            {view.mixture ? (
              <Mixture view={view} mixture={view.mixture} />
            ) : (
              <Lanes key={student} view={view} chosen={chosen} choose={choose} />
            )}
            <aside
              aria-label={say("ladder.whatFollows")}
              // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolled region must be reachable by keyboard
              tabIndex={0}
              className="w-full space-y-2.5 lg:max-h-[calc(100dvh-122px)] lg:w-[330px] lg:shrink-0 lg:overflow-y-auto"
            >
              <div className="flex items-center justify-between">
                <h2>{rung ? say("ladder.thisItem") : say("ladder.suggestions")}</h2>
                <PlaceRung view={view} above={rung} />
              </div>
              {rung ? (
                <RungCard key={rung.id} rung={rung} view={view} close={() => choose("")} />
              ) : (
                <>
                  <Suggestions view={view} choose={choose} />
                  <FirstThings student={view.student.id} aims={view.aims} />
                  <Together student={view.student.id} />
                  <Granted student={view.student.id} skills={view.granted} />
                  {view.granted.length === 0 && (
                    <Link
                      to="/students/$student/placement"
                      params={{ student }}
                      className="inline-block text-soft underline underline-offset-4"
                    >
                      {say("ladder.placeAnewInstrument")}
                    </Link>
                  )}
                </>
              )}
            </aside>
          </main>
        );
      }}
    </Shown>
  );
}
