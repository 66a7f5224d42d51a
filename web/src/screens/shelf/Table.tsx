import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { asTable, TableFile } from "../../parts/TableFile";
import { rich, say } from "../../words/say";

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
      title={say("shelf.shelfTable")}
      says={say("shelf.csvOneLineItem")}
      href="/api/shelf.csv"
      name={say("shelf.tableShelf")}
      busy={look.isPending || keep.isPending}
      take={take}
      error={look.error ?? keep.error}
    >
      {look.data && <Preview table={keep.data ?? look.data} name={file?.name ?? ""} />}
      {look.data && !keep.data && look.data.twins > 0 && (
        <label className="flex items-start gap-2">
          <input type="checkbox" className="mt-1" checked={twins} onChange={() => setTwins(!twins)} />
          {say("shelf.twinsOnShelf", { n: look.data.twins })}
        </label>
      )}
      {look.data && !keep.data && file && changes > 0 && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate(file)}>
          {say("shelf.saveChanges", { changes })}
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
        {table.saved ? say("shelf.saved") : say("shelf.wouldChange")}{" "}
        {say("shelf.fromNewChangedSame", { name, added, n: table.changes.length - added, same: table.same })}
        {table.bad.length > 0 && <span className="text-warn">, {say("count.badRow", { n: table.bad.length })}</span>}
      </p>
      <ul className="max-h-60 space-y-0.5 overflow-y-auto">
        {table.bad.map((b) => (
          <li key={b.line} className="border-l-4 border-warn pl-2">
            {say("shelf.line", { line: b.line, says: b.says })}
          </li>
        ))}
        {table.changes.map((c) => (
          <li key={c.line}>
            {rich("shelf.line2", {
              line: c.line,
              title: c.item.title,
              b: (text) => <b className="font-[620]">{text}</b>,
            })}{" "}
            <span className="text-soft">
              {c.twin ? say("shelf.newThoughOneTitleThere") : c.new ? say("shelf.isNew") : c.fields.join(", ")}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
