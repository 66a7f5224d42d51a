import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { useTold } from "../../api/useEcho";
import { ladderView } from "../../api/views";
import { Button } from "../../parts/Button";
import { say } from "../../words/say";

// Place puts an item on a student's ladder.
export function Place({ item, student }: { item: Schemas["Item"]; student: Schemas["StudentCard"] }) {
  const query = useQuery(ladderView(student.id));
  const { late, kept } = useTold(query.dataUpdatedAt);
  const there = query.data?.rungs.find((r) => r.item === item.id && r.state !== "proposed");
  if (there) {
    return (
      <p>
        {say("item.sLadder", { firstName: student.firstName, state: there.state })}{" "}
        <Link
          to="/students/$student/ladder"
          params={{ student: student.id }}
          className="font-[620] underline underline-offset-4"
        >
          {say("item.seeLadder")}
        </Link>
      </p>
    );
  }
  // a second click may come before the ladder is fetched anew
  const added = [...late, ...kept].some(
    ({ student: of, body }) => of === student.id && body.kind === "rung_added" && body.item === item.id,
  );
  const add = (after: string) =>
    tell(student.id, { kind: "rung_added", item: item.id, strand: item.strand, after, revision: item.revision });
  const lane = query.data?.rungs.filter((r) => r.strand === item.strand) ?? [];
  const secure = lane.findLast((r) => r.state === "secure");
  const now = lane.findLast((r) => r.state === "secure" || r.state === "current");
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="main" disabled={!query.data || added} onClick={() => add(secure?.id ?? "")}>
        {say("item.startNow")}
      </Button>
      <Button disabled={!query.data || added} onClick={() => add(now?.id ?? "")}>
        {say("item.placeNext")}
      </Button>
      <Button disabled={!query.data || added} onClick={() => add("top")}>
        {say("item.placeLast")}
      </Button>
    </div>
  );
}
