import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { shelfView } from "../../api/views";
import { Shown } from "../../parts/Told";
import { plural, strandNames } from "../../parts/words";
import { ImportScores } from "./ImportScores";

// ShelfScreen: all materials by book and unit, and the way to bring in more.
export function ShelfScreen() {
  const query = useQuery(shelfView);
  const [find, setFind] = useState("");
  return (
    <main className="grid flex-1 content-start gap-5 px-4 py-3 lg:grid-cols-[1fr_340px]">
      <section aria-label="Books" className="min-w-0">
        <div className="flex flex-wrap items-center gap-4 pb-3">
          <h1 className="text-head">Shelf</h1>
          <input
            aria-label="Find on the shelf"
            placeholder="Find a title, book or unit"
            value={find}
            onChange={(e) => setFind(e.target.value)}
            className="w-72 rounded border border-line bg-raised px-3 py-1.5 placeholder:text-soft"
          />
        </div>
        <Shown query={query}>{(shelf) => <Books items={shelf.items} find={find.toLowerCase()} />}</Shown>
      </section>
      <ImportScores books={[...new Set(query.data?.items.map((it) => it.book))]} />
    </main>
  );
}

function Books({ items, find }: { items: Schemas["Item"][]; find: string }) {
  const found = items.filter((it) =>
    `${it.title} ${it.book} ${it.unit} ${it.composer ?? ""}`.toLowerCase().includes(find),
  );
  if (items.length === 0)
    return (
      <p className="rounded bg-raised p-6 text-soft">The shelf is empty. Drop score files at the right to fill it.</p>
    );
  if (found.length === 0) return <p className="text-soft">Nothing on the shelf has “{find}” in it.</p>;
  return Object.entries(Object.groupBy(found, (it) => it.book)).map(([book, list = []]) => (
    <section key={book} aria-label={book} className="mb-4 rounded bg-raised px-4 py-3">
      <h2 className="text-large">
        {book}{" "}
        <span className="text-body font-normal text-soft">
          {list[0]?.instrument} · {plural(list.length, "item")}
        </span>
      </h2>
      <div className="mt-1 grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3">
        {Object.entries(Object.groupBy(list, (it) => it.unit)).map(([unit, own = []]) => (
          <div key={unit}>
            {unit && <h3 className="border-b border-line pb-0.5 text-soft">{unit}</h3>}
            <ul>
              {own.map((it) => (
                <li key={it.id}>
                  <Link
                    to="/items/$item"
                    params={{ item: it.id }}
                    className="flex items-baseline justify-between gap-2 rounded-sm px-1 py-[3px] hover:bg-faint"
                  >
                    <span className="truncate font-[560]">{it.title}</span>
                    <span className="shrink-0 text-small text-soft">
                      {it.strand === "book" ? `${it.bars} bars` : strandNames[it.strand]?.split(" ")[0]?.toLowerCase()}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  ));
}
