import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";

type Props = { book: string; unit?: string; away?: boolean; className?: string; children?: React.ReactNode };

const quiet =
  "rounded px-1 text-small text-soft underline underline-offset-4 opacity-0 hover:text-ink focus-visible:opacity-100 group-hover:opacity-100 pointer-coarse:opacity-100";

// Title is the title of a book, or of a unit of it, and how it gets another one.
// Students keep what they chose and learnt of it.
export function Title({ book, unit, away, className, children }: Props) {
  const [editing, edit] = useState(false);
  const now = unit ?? book;
  const save = useMutation({
    mutationFn: (title: string) => answer(api.PUT("/api/books", { body: { book, title, ...(unit && { unit }) } })),
    onSuccess: async () => {
      edit(false);
      await queries.invalidateQueries();
    },
  });
  const lay = useMutation({
    mutationFn: (to: boolean) => answer(api.PUT("/api/books/away", { body: { book, away: to } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const drop = useMutation({
    mutationFn: () => answer(api.DELETE("/api/books", { params: { query: { book } } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const error = lay.error ?? drop.error;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const title = String(new FormData(e.currentTarget).get("title")).trim();
    if (title === now) edit(false);
    else save.mutate(title);
  };
  const Heading = unit ? "h3" : "h2";
  if (!editing) {
    return (
      <div className={`group flex flex-wrap items-baseline gap-2 ${className ?? ""}`}>
        <Heading className={unit ? "text-soft" : "text-large"}>
          {now} {children}
        </Heading>
        <button
          type="button"
          aria-label={say("shelf.rename", { now })}
          className={`ml-auto ${quiet}`}
          onClick={() => edit(true)}
        >
          {say("shelf.rename2")}
        </button>
        {!unit && (
          <>
            <button
              type="button"
              className={quiet}
              aria-label={`${away ? say("shelf.bringBack") : say("shelf.layAway")} ${book}`}
              onClick={() => lay.mutate(!away)}
            >
              {away ? say("shelf.bringBack2") : say("shelf.layAway2")}
            </button>
            {away && (
              <button
                type="button"
                className={quiet}
                aria-label={say("shelf.takeOffGood", { book })}
                onClick={() => drop.mutate()}
              >
                {say("shelf.takeOffGood2")}
              </button>
            )}
          </>
        )}
        {error && <Trouble>{error.message}</Trouble>}
      </div>
    );
  }
  return (
    <form onSubmit={submit} className={`flex flex-wrap gap-2 ${className ?? ""}`}>
      <input
        name="title"
        aria-label={say("shelf.newTitle", { now })}
        required
        maxLength={200}
        defaultValue={now}
        // biome-ignore lint/a11y/noAutofocus: it was asked for a moment ago
        autoFocus
        className="min-w-40 flex-1 rounded border border-line bg-ground px-2 py-1"
      />
      <Button type="submit" disabled={save.isPending}>
        {say("shelf.save")}
      </Button>
      <Button look="quiet" onClick={() => edit(false)}>
        {say("shelf.leaveIt")}
      </Button>
      {save.error && <Trouble>{save.error.message}</Trouble>}
    </form>
  );
}
