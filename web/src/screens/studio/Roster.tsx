import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { plural } from "../../parts/words";

const send = (file: File, save: boolean) =>
  answer(
    api.POST("/api/students.csv", {
      params: { query: { save } },
      body: file as unknown as string,
      bodySerializer: (f) => f as unknown as Blob,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );

// Roster takes the students out as a table and brings one in: first what it would change, then
// the change, which is taken back as a whole.
export function Roster() {
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const look = useMutation({ mutationFn: (f: File) => send(f, false) });
  const keep = useMutation({ mutationFn: (f: File) => send(f, true), onSuccess: () => queries.invalidateQueries() });
  const back = useMutation({
    mutationFn: async (added: Schemas["StudentCard"][]) => {
      for (const s of added)
        await answer(
          api.DELETE("/api/students/{student}", { params: { path: { student: s.id }, query: { name: s.firstName } } }),
        );
    },
    onSettled: () => queries.invalidateQueries(),
  });
  const take = (f?: File) => {
    if (!f) return;
    keep.reset();
    back.reset();
    setFile(f);
    look.mutate(f);
  };
  const error = look.error ?? keep.error ?? back.error;
  const shown = keep.data ?? look.data;
  const fresh = shown?.changes.filter((c) => c.new).length ?? 0;
  return (
    <section aria-label="The students as a table" className="space-y-2 rounded bg-raised p-4">
      <h2>The students as a table</h2>
      <p className="text-soft">
        CSV, one line a student: first name, family name, born, instrument, day, start, minutes, mail, books. Nothing is
        kept before you have seen what it changes.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <a href="/api/students.csv" download className="rounded px-1 py-2 font-[620] underline underline-offset-4">
          Take it out
        </a>
        <Button onClick={() => input.current?.click()} disabled={look.isPending || keep.isPending}>
          Bring one in
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,.txt,text/csv"
          aria-label="A table of students"
          className="sr-only"
          onChange={(e) => {
            take(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </div>
      {error && <Trouble>{error.message}</Trouble>}
      {shown && !error && (
        <div role="status" className="border-t border-faint pt-2">
          <p className="font-[620]">
            {back.isSuccess ? "Taken back" : shown.saved ? "Kept" : "Would change"}: {fresh} new,{" "}
            {shown.changes.length - fresh} changed, {shown.same} the same
            {shown.bad.length > 0 && <span className="text-warn">, {plural(shown.bad.length, "line")} not taken</span>}
          </p>
          <ul className="max-h-60 space-y-0.5 overflow-y-auto">
            {shown.bad.map((b) => (
              <li key={b.line} className="border-l-4 border-warn pl-2">
                Line {b.line}: {b.says}
              </li>
            ))}
            {shown.changes.map((c) => (
              <li key={c.line}>
                Line {c.line}:{" "}
                <b className="font-[620]">
                  {c.pupil.firstName} {c.pupil.familyName}
                </b>{" "}
                <span className="text-soft">{c.new ? `new, ${c.pupil.instrument}` : c.fields.join(", ")}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {look.data && !keep.data && !error && file && look.data.changes.length > 0 && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate(file)}>
          Keep {plural(look.data.changes.length, "change")}
        </Button>
      )}
      {keep.data && keep.data.added.length > 0 && !back.isSuccess && (
        <Button disabled={back.isPending} onClick={() => back.mutate(keep.data.added)}>
          Take back the {plural(keep.data.added.length, "new student")}
        </Button>
      )}
    </section>
  );
}
