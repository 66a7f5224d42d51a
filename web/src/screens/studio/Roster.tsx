import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { asTable, TableFile } from "../../parts/TableFile";
import { rich, say } from "../../words/say";

const send = (file: File, save: boolean) =>
  answer(api.POST("/api/students.csv", { params: { query: { save } }, ...asTable(file) }));

// Roster takes the students out as a table and brings one in: first what it would change, then
// the change, which is taken back as a whole.
export function Roster() {
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
  const take = (f: File) => {
    keep.reset();
    back.reset();
    setFile(f);
    look.mutate(f);
  };
  const shown = keep.data ?? look.data;
  const fresh = shown?.changes.filter((c) => c.new).length ?? 0;
  return (
    <TableFile
      title={say("studio.studentsTable")}
      says={say("studio.csvOneLineStudentFirst")}
      href="/api/students.csv"
      name={say("studio.tableStudents")}
      busy={look.isPending || keep.isPending}
      take={take}
      error={look.error ?? keep.error ?? back.error}
    >
      {shown && (
        <div role="status" className="border-t border-faint pt-2">
          <p className="font-[620]">
            {back.isSuccess ? say("studio.undone") : shown.saved ? say("studio.saved") : say("studio.wouldChange")}
            {say("studio.newChangedSame", { fresh, n: shown.changes.length - fresh, same: shown.same })}
            {shown.bad.length > 0 && (
              <span className="text-warn">{say("studio.linesNotTaken", { bad: shown.bad.length })}</span>
            )}
          </p>
          <ul className="max-h-60 space-y-0.5 overflow-y-auto">
            {shown.bad.map((b) => (
              <li key={b.line} className="border-l-4 border-warn pl-2">
                {say("studio.line", { line: b.line, says: b.says })}
              </li>
            ))}
            {shown.changes.map((c) => (
              <li key={c.line}>
                {rich("studio.line2", {
                  line: c.line,
                  firstName: c.pupil.firstName,
                  familyName: c.pupil.familyName,
                  b: (text) => <b className="font-[620]">{text}</b>,
                })}{" "}
                <span className="text-soft">
                  {c.new ? say("studio.newOn", { instrument: c.pupil.instrument }) : c.fields.join(", ")}
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
      {look.data && !keep.data && file && look.data.changes.length > 0 && (
        <Button look="main" disabled={keep.isPending} onClick={() => keep.mutate(file)}>
          {say("studio.saveChanges", { changes: look.data.changes.length })}
        </Button>
      )}
      {keep.data && keep.data.added.length > 0 && !back.isSuccess && (
        <Button disabled={back.isPending} onClick={() => back.mutate(keep.data.added)}>
          {say("studio.takeBackAddedPluralOne", { added: keep.data.added.length })}
        </Button>
      )}
    </TableFile>
  );
}
