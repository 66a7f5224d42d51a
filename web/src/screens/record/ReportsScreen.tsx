import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../../api/client";
import { reportsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { useInTurn } from "../../parts/useInTurn";
import { plural } from "../../parts/words";
import { type Paper, Papers } from "../week/OnePage";
import { Fared, onTheWay } from "../week/Send";
import { PickTerm } from "./PickTerm";
import { keepReport, printed, sendReport } from "./ReportScreen";

type One = Schemas["StudentReport"];

// ReportsScreen keeps, sends and prints the reports of a term, all in one go.
export function ReportsScreen() {
  const { from } = useSearch({ from: "/inside/studio/reports" });
  return <Shown query={useQuery(reportsView(from))}>{(view) => <Reports view={view} />}</Shown>;
}

function Reports({ view }: { view: Schemas["ReportsView"] }) {
  const go = useNavigate();
  const [paper, setPaper] = useState<Paper>("A4");
  const term = view.terms[view.shown];
  const from = term?.from ?? "";
  const name = (one: One) => one.student.firstName;
  const keep = useInTurn(name, (one) => keepReport(one.student.id, one.report));
  const send = useInTurn(name, (one) => sendReport(one.student.id, from, ulid(), paper));
  const drafts = view.reports.filter((r) => r.kept === 0);
  const ready = view.reports.filter((r) => r.kept > 0 && r.student.contact && !onTheWay(r.sending));
  const kept = view.reports.length - drafts.length;
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <div className="my-3 flex flex-wrap items-baseline gap-x-3">
        <h1 className="mr-auto text-head first-letter:uppercase">{term ? `Reports: ${term.name}` : "Reports"}</h1>
        <PickTerm
          terms={view.terms}
          shown={view.shown}
          choose={(to) => go({ to: "/studio/reports", search: { from: to } })}
        />
      </div>
      {!term && <p className="rounded bg-raised p-4 text-soft">No term has begun yet.</p>}
      {term && (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <Button
              look={drafts.length > 0 ? "main" : "quiet"}
              disabled={keep.isPending || drafts.length === 0}
              onClick={() => keep.mutate(drafts)}
            >
              {keep.isPending
                ? `Keeping, ${keep.done} of ${keep.variables.length}`
                : drafts.length === 0
                  ? "All kept"
                  : `Keep ${plural(drafts.length, "draft")} as they are`}
            </Button>
            <Button
              look={drafts.length === 0 && ready.length > 0 ? "main" : "quiet"}
              disabled={send.isPending || ready.length === 0}
              onClick={() => send.mutate(ready)}
            >
              {send.isPending
                ? `Sending, ${send.done} of ${send.variables.length}`
                : ready.length === 0
                  ? "Send the reports"
                  : `Send ${plural(ready.length, "report")}`}
            </Button>
            {kept > 0 && (
              <a href={printed(from, paper)} download className="font-[620] underline underline-offset-4">
                Print {plural(kept, "page")}
              </a>
            )}
            <Papers paper={paper} choose={setPaper} />
          </div>
          {[keep, send].map(
            (run, i) =>
              run.data &&
              run.data.length > 0 && (
                <Trouble key={i === 0 ? "keep" : "send"}>
                  {plural(run.data.length, "report")} {i === 0 ? "not kept" : "did not go out"}: {run.data.join("; ")}.
                </Trouble>
              ),
          )}
          <ol className="divide-y divide-faint rounded bg-raised px-4">
            {view.reports.map((r) => (
              <li
                key={r.student.id}
                className="grid items-baseline gap-x-4 gap-y-1 py-2.5 sm:grid-cols-[11rem_1fr_14rem]"
              >
                <Link
                  to="/students/$student/report"
                  params={{ student: r.student.id }}
                  search={{ from }}
                  className="font-[650] underline-offset-4 hover:underline"
                >
                  {r.student.firstName} {r.student.familyName}
                </Link>
                <span className="line-clamp-2">
                  {r.report.paragraphs
                    .filter((p) => p.text !== "")
                    .slice(0, 2)
                    .map((p) => p.text)
                    .join(" ")}
                </span>
                <span>
                  {r.kept === 0 ? <span className="text-soft">a draft</span> : "kept"}
                  {r.kept > 0 && !r.student.contact && <span className="text-soft">, no mail address yet</span>}
                  {r.sending && <Fared sending={r.sending} />}
                </span>
              </li>
            ))}
            {view.reports.length === 0 && <li className="py-3 text-soft">Nobody has had a lesson in this term yet.</li>}
          </ol>
          <p className="mt-2 text-soft">Each tells one student by the own past; nobody is held against another.</p>
        </>
      )}
    </main>
  );
}
