import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { asTable, TableFile } from "../../parts/TableFile";
import { plural } from "../../parts/words";

const send = (file: File, save: boolean, twins = false) =>
  answer(api.POST("/api/shelf.csv", { params: { query: { save, twins } }, ...asTable(file) }));

// Table takes the shelf out as a table and brings one in: first what it would
// change, then, when the teacher says so, the change.
export function Table() {
  const [file, setFile] = useState<File>();
  const [twins, setTwins] = useState(false);
  const look = useMutation({ mutationFn: (f: File) => send(f, false) });
  const keep = useMutation({
    mutationFn: (f: File) => send(f, true, twins),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  const take = (f: File) => {
    keep.reset();
    setTwins(false);
    setFile(f);
    look.mutate(f);
  };
  const changes = (look.data?.changes.length ?? 0) - (twins ? 0 : (look.data?.twins ?? 0));
  return (
    <TableFile
      title="The shelf as a table"
      says="CSV, one line an item."
      href="/api/shelf.csv"
      name="A table of the shelf"
      busy={look.isPending || keep.isPending}
      take={take}
      error={look.error ?? keep.error}
    >
      {look.data && <Preview table={keep.data ?? look.data} name={file?.name ?? ""} />}
      {look.data && !keep.data && look.data.twins > 0 && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" checked={twins} onChange={() => setTwins(!twins)} />
          {plural(look.data.twins, "new item")} of the same title and book {look.data.twins === 1 ? "stands" : "stand"}{" "}
          on the shelf already. Bring {look.data.twins === 1 ? "it" : "them"} in all the same
        </label>
      )}
      {look.data && !keep.data && file && changes > 0 && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate(file)}>
          Keep {plural(changes, "change")}
        </Button>
      )}
    </TableFile>
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
