import { useQuery } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { shelfView } from "../../api/views";
import { Button } from "../../parts/Button";
import { useInstruments } from "../../parts/instruments";
import { useKeys } from "../../parts/keys";
import { Shown } from "../../parts/Told";
import { strandNames } from "../../parts/words";
import { say } from "../../words/say";

// PlaceRung puts items of the shelf on this ladder, each at the top of its
// lane, or, in the lane of the rung that is chosen, right above it: one by one,
// or a whole book in its order.
export function PlaceRung({ view, above }: { view: Schemas["LadderView"]; above?: Schemas["RungView"] }) {
  const [find, setFind] = useState("");
  const [open, setOpen] = useState(false);
  const query = useQuery({ ...shelfView(""), enabled: open });
  const there = new Set(view.rungs.filter((r) => r.state !== "proposed").map((r) => r.item));
  const into = above && above.state !== "proposed" ? above : undefined;
  const place = (item: Schemas["Item"]) =>
    tell(view.student.id, {
      kind: "rung_added",
      item: item.id,
      strand: into?.strand ?? item.strand,
      after: into?.id ?? "top",
      revision: item.revision,
    });
  const { together } = useInstruments();
  useKeys({ i: () => setOpen(true) });
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(to) => {
        setOpen(to);
        setFind("");
      }}
    >
      <Dialog.Trigger asChild>
        <button type="button" className="rounded px-2 py-1 font-[620] underline underline-offset-4">
          {into ? say("ladder.insertAbove") : say("ladder.placePiece")}
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[8vh] left-1/2 flex max-h-[80vh] w-[min(560px,94vw)] -translate-x-1/2 flex-col gap-3 rounded border border-line bg-raised p-5"
        >
          <Dialog.Title className="text-head">
            {into
              ? say("ladder.insertAbove2", { title: into.title })
              : say("ladder.placePieceSLadder", { firstName: view.student.firstName })}
          </Dialog.Title>
          <input
            aria-label={say("ladder.findTitleBookUnit")}
            placeholder={say("ladder.titleBookUnit")}
            value={find}
            onChange={(e) => setFind(e.target.value)}
            className="rounded border border-line bg-ground px-3 py-2 placeholder:text-soft"
          />
          <div className="min-h-40 overflow-y-auto">
            <Shown query={query}>
              {(shelf) => {
                const words = find.toLowerCase();
                const found = shelf.items.filter(
                  (it) =>
                    together(it.instrument, view.student.instrument) &&
                    !there.has(it.id) &&
                    `${it.title} ${it.book} ${it.unit}`.toLowerCase().includes(words),
                );
                return found.length === 0 ? (
                  <p className="text-soft">
                    {say("ladder.nothingLeftShelfImportScore", { plays: view.student.plays })}
                  </p>
                ) : (
                  Object.entries(Object.groupBy(found, (it) => it.book)).map(([book, list = []]) => (
                    <section key={book} aria-label={book} className="mb-4">
                      <div className="flex items-center justify-between gap-3 border-b border-line pb-1">
                        <h3>{book}</h3>
                        {list.length > 1 && (
                          <Button
                            look="quiet"
                            aria-label={say("ladder.placeAll", { list: list.length, book })}
                            onClick={() => list.forEach(place)}
                          >
                            {say("ladder.placeAllOrder", { list: list.length })}
                          </Button>
                        )}
                      </div>
                      <ul className="divide-y divide-faint">
                        {list.map((it) => (
                          <li key={it.id} className="flex items-center gap-3 py-1.5">
                            <span className="min-w-0 flex-1">
                              <b className="block truncate font-[620]">{it.title}</b>
                              <span className="block truncate text-small text-soft">
                                {strandNames[it.strand]}
                                {it.unit && ` · ${it.unit}`}
                              </span>
                            </span>
                            <Button aria-label={say("ladder.place", { title: it.title })} onClick={() => place(it)}>
                              {say("ladder.place2")}
                            </Button>
                          </li>
                        ))}
                      </ul>
                    </section>
                  ))
                );
              }}
            </Shown>
          </div>
          <Dialog.Close asChild>
            <Button look="quiet" className="self-end">
              {say("ladder.done")}
            </Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
