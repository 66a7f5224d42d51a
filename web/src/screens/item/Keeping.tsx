import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useId } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { shelfView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Props = { item: Schemas["Item"]; used: boolean };

// Keeping gives an item another score, lays it away, or takes it off the shelf where
// nobody has it.
export function Keeping({ item, used }: Props) {
  const file = useId();
  const navigate = useNavigate();
  const at = { params: { path: { item: item.id } } };
  const replace = useMutation({
    mutationFn: (f: File) =>
      answer(
        api.PUT("/api/items/{item}/score", {
          params: { ...at.params, query: { name: f.name } },
          body: f as unknown as string,
          bodySerializer: (b) => b as unknown as BodyInit,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const archive = useKeep<Schemas["Item"]>("archive", (body) => answer(api.PUT("/api/items/{item}", { ...at, body })));
  const drop = useMutation({
    mutationFn: () => answer(api.DELETE("/api/items/{item}", { ...at, body: { was: item } })),
    onSuccess: async () => {
      await navigate({ to: "/shelf" });
      await queries.invalidateQueries({ queryKey: ["shelf"] });
    },
    onError: () => queries.invalidateQueries(),
  });
  const same = useMutation({
    mutationFn: (as: string) => answer(api.PUT("/api/items/{item}/same", { ...at, body: { as } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const trouble = replace.error ?? drop.error ?? same.error;
  if (item.sameAs)
    return (
      <section aria-label={say("item.manage")} className="space-y-2 rounded bg-raised p-4">
        <h2>{say("item.manage")}</h2>
        <p>
          {say("item.thisIsTheSameAs")}{" "}
          <Link to="/items/$item" params={{ item: item.sameAs }} className="underline underline-offset-4">
            {item.title}
          </Link>{" "}
          {say("item.hasItsWordsWhoeverHas", { book: item.book })}
        </p>
        <Button onClick={() => same.mutate("")} disabled={same.isPending}>
          {say("item.partThemAgain")}
        </Button>
        {trouble && <Trouble>{trouble.message}</Trouble>}
      </section>
    );
  return (
    <section aria-label={say("item.manage")} className="space-y-2 rounded bg-raised p-4">
      <h2>{say("item.manage")}</h2>
      {item.archived && <p>{say("item.archivedStudentsWhoHaveCarry")}</p>}
      <div className="flex flex-wrap gap-2">
        <label
          htmlFor={file}
          className="flex cursor-pointer items-center rounded border border-ink bg-raised px-4 py-2 font-[620] focus-within:outline-2 hover:bg-faint"
        >
          {item.hasScore ? say("item.anotherScore") : say("item.giveScore")}
          <input
            id={file}
            type="file"
            accept=".musicxml,.xml,.mxl,.abc,.mid"
            className="sr-only"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              if (chosen) replace.mutate(chosen);
              e.target.value = "";
            }}
          />
        </label>
        <Button onClick={() => archive.keep({ ...item, archived: !item.archived }, item)} disabled={archive.busy}>
          {item.archived ? say("item.restoreIt") : say("item.archiveIt")}
        </Button>
        {!used && (
          <Button look="quiet" onClick={() => drop.mutate()} disabled={drop.isPending}>
            {say("item.removeFromShelf")}
          </Button>
        )}
      </div>
      {archive.asked}
      <SameAs item={item} choose={(as) => same.mutate(as)} />
      <p aria-live="polite" className="text-soft">
        {replace.data && (replace.data.says || say("item.newScoreStands"))}
      </p>
      {trouble && <Trouble>{trouble.message}</Trouble>}
    </section>
  );
}

// SameAs tells that an item is the same thing as another of its lane, so that the two
// become one.
function SameAs({ item, choose }: { item: Schemas["Item"]; choose: (as: string) => void }) {
  const shelf = useQuery(shelfView(""));
  const title = item.title.toLowerCase();
  const others = (shelf.data?.items ?? [])
    .filter((it) => it.id !== item.id && it.instrument === item.instrument && it.strand === item.strand)
    .sort((a, b) => Number(b.title.toLowerCase() === title) - Number(a.title.toLowerCase() === title));
  return (
    <label className="block font-[580]">
      {say("item.itIsTheSameAs")}
      <select
        className="mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal"
        value=""
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">{say("item.nothingElse")}</option>
        {others.map((it) => (
          <option key={it.id} value={it.id}>
            {it.title}, {it.book}
          </option>
        ))}
      </select>
    </label>
  );
}
