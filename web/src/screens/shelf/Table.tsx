import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { plural } from "../../parts/words";

const send = (file: File, save: boolean, twins = false) =>
  answer(
    api.POST("/api/shelf.csv", {
      params: { query: { save, twins } },
      body: file as unknown as string,
      bodySerializer: (f) => f as unknown as Blob,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );

// Table takes the shelf out as a table and brings one in: first what it would
// change, then, when the teacher says so, the change.
export function Table() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const [twins, setTwins] = useState(false);
  const look = useMutation({ mutationFn: (f: File) => send(f, false) });
  const keep = useMutation({
    mutationFn: (f: File) => send(f, true, twins),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  const take = (f?: File) => {
    if (!f) return;
    keep.reset();
    setTwins(false);
    setFile(f);
    look.mutate(f);
  };
  const error = look.error ?? keep.error;
  const changes = (look.data?.changes.length ?? 0) - (twins ? 0 : (look.data?.twins ?? 0));
  return (
    <section aria-label="The shelf as a table" className="space-y-2 rounded bg-raised p-4">
      <h2>The shelf as a table</h2>
      <p className="text-soft">CSV, one line an item. Nothing is kept before you have seen what it changes.</p>
      <div className="flex flex-wrap items-center gap-2">
        <a href="/api/shelf.csv" download className="rounded px-1 py-2 font-[620] underline underline-offset-4">
          Take it out
        </a>
        <Button onClick={() => input.current?.click()} disabled={look.isPending || keep.isPending}>
          Bring one in
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv"
          aria-label="A table of the shelf"
          className="sr-only"
          onChange={(e) => {
            take(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </div>
      {error && <Trouble>{error.message}</Trouble>}
      {look.data && !error && <Preview table={keep.data ?? look.data} name={file?.name ?? ""} />}
      {look.data && !keep.data && !error && look.data.twins > 0 && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" checked={twins} onChange={() => setTwins(!twins)} />
          {plural(look.data.twins, "new item")} of the same title and book {look.data.twins === 1 ? "stands" : "stand"}{" "}
          on the shelf already. Bring {look.data.twins === 1 ? "it" : "them"} in all the same
        </label>
      )}
      {look.data && !keep.data && !error && file && changes > 0 && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate(file)}>
          Keep {plural(changes, "change")}
        </Button>
      )}
    </section>
  );
}

function Preview({ table, name }: { table: Schemas["TableView"]; name: string }) {
  const added = table.changes.filter((c) => c.new).length;
  return (
    <div role="status" className="border-t border-faint pt-2">
      <p className="font-[620]">
        {table.saved ? "Kept" : "Would change"} by {name}: {added} new, {table.changes.length - added} changed,{" "}
        {table.same} the same
        {table.bad.length > 0 && <span className="text-warn">, {plural(table.bad.length, "bad row")}</span>}
      </p>
      <ul className="max-h-60 space-y-0.5 overflow-y-auto">
        {table.bad.map((b) => (
          <li key={b.line} className="border-l-4 border-warn pl-2">
            Line {b.line}: {b.says}
          </li>
        ))}
        {table.changes.map((c) => (
          <li key={c.line}>
            Line {c.line}: <b className="font-[620]">{c.item.title}</b>{" "}
            <span className="text-soft">
              {c.twin ? "new, though one of that title is there" : c.new ? "new" : c.fields.join(", ")}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
