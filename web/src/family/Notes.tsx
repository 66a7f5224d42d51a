import { queryOptions, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { Tablature } from "../parts/Tablature";
import { say } from "../words/say";
import { Turn } from "./Turn";

type Props = { token: string; task: Schemas["Task"]; now: string[] };

// The notes of a line, and the engraver that draws them: both come when they are first
// shown.
const notesView = (token: string, line: string) =>
  queryOptions({
    queryKey: ["notes", token, line],
    queryFn: async () => {
      const notes = api.GET("/api/family/{token}/notes", { params: { path: { token }, query: { line } } });
      const [{ drawn }, { Staff }] = await Promise.all([answer(notes), import("../parts/Staff")]);
      return { drawn, Staff };
    },
    staleTime: Number.POSITIVE_INFINITY,
  });

// Notes shows the notes of a line, with a bracket over what is played of them; of cards each
// by itself, its answer under a touch. Notes that sound stand out.
export function Notes({ token, task, now }: Props) {
  const query = useQuery(notesView(token, task.key));
  if (!query.data)
    return (
      <p role={query.error ? "alert" : undefined} className="mx-4 mb-2 text-soft">
        {query.error ? say("family.notesCannotFetchedJustNow") : say("family.fetchingNotes")}
      </p>
    );
  const { drawn, Staff } = query.data;
  return drawn.map((n) => {
    const card = task.cards?.find((c) => c.id === n.card);
    return (
      <figure key={n.card || task.key} className="mx-4 mb-2 rounded bg-white p-1 text-black">
        {n.stops.length > 0 ? (
          <Tablature open={n.strings} notes={n.stops.map((s, i) => ({ ...s, onset: i }))} />
        ) : (
          <Staff notes={n} now={now} title={card?.shown ?? task.title} />
        )}
        {card && (
          <figcaption className="px-2 pb-1">
            <Turn card={card} />
          </figcaption>
        )}
      </figure>
    );
  });
}
