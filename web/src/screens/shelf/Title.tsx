import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

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
        <button type="button" aria-label={`Rename ${now}`} className={`ml-auto ${quiet}`} onClick={() => edit(true)}>
          rename
        </button>
        {!unit && (
          <>
            <button
              type="button"
              className={quiet}
              aria-label={`${away ? "Bring back" : "Lay away"} ${book}`}
              onClick={() => lay.mutate(!away)}
            >
              {away ? "bring back" : "lay away"}
            </button>
            {away && (
              <button
                type="button"
                className={quiet}
                aria-label={`Take ${book} off for good`}
                onClick={() => drop.mutate()}
              >
                take off for good
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
        aria-label={`New title of ${now}`}
        required
        maxLength={200}
        defaultValue={now}
        // biome-ignore lint/a11y/noAutofocus: it was asked for a moment ago
        autoFocus
        className="min-w-40 flex-1 rounded border border-line bg-ground px-2 py-1"
      />
      <Button type="submit" disabled={save.isPending}>
        Keep
      </Button>
      <Button look="quiet" onClick={() => edit(false)}>
        Leave it
      </Button>
      {save.error && <Trouble>{save.error.message}</Trouble>}
    </form>
  );
}
