import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../../api/client";
import { reportsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { usualPaper } from "../../parts/prefs";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { useInTurn } from "../../parts/useInTurn";
import { say } from "../../words/say";
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
  const [paper, setPaper] = useState<Paper>(usualPaper);
  const term = view.terms[view.shown];
  const from = term?.from ?? "";
  const name = (one: One) => one.student.firstName;
  const keep = useInTurn(name, (one) => keepReport(one.student.id, { now: one.report }));
  const send = useInTurn(name, (one) => sendReport(one.student.id, from, ulid(), paper));
  const drafts = view.reports.filter((r) => r.kept === 0);
  const ready = view.reports.filter((r) => r.kept > 0 && r.student.contact && !onTheWay(r.sending));
  const kept = view.reports.length - drafts.length;
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <div className="my-3 flex flex-wrap items-baseline gap-x-3">
        <h1 className="mr-auto text-head first-letter:uppercase">
          {term ? say("record.reports", { name: term.name }) : say("record.reports2")}
        </h1>
        <PickTerm
          terms={view.terms}
          shown={view.shown}
          choose={(to) => go({ to: "/studio/reports", search: { from: to } })}
        />
      </div>
      {!term && <p className="rounded bg-raised p-4 text-soft">{say("record.noTermHasBegunYet")}</p>}
      {term && (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <Button
              look={drafts.length > 0 ? "main" : "quiet"}
              disabled={keep.isPending || drafts.length === 0}
              onClick={() => keep.mutate(drafts)}
            >
              {keep.isPending
                ? say("record.savingOf", { done: keep.done, all: keep.variables.length })
                : drafts.length === 0
                  ? say("record.allKept")
                  : say("record.saveDraftsTheyAre", { drafts: drafts.length })}
            </Button>
            <Button
              look={drafts.length === 0 && ready.length > 0 ? "main" : "quiet"}
              disabled={send.isPending || ready.length === 0}
              onClick={() => send.mutate(ready)}
            >
              {send.isPending
                ? say("record.sendingOf", { done: send.done, all: send.variables.length })
                : ready.length === 0
                  ? say("record.sendReports")
                  : say("record.sendReports2", { ready: ready.length })}
            </Button>
            {kept > 0 && (
              <a href={printed(from, paper)} download className="font-[620] underline underline-offset-4">
                {say("record.printPages", { kept })}
              </a>
            )}
            <Papers paper={paper} choose={setPaper} />
          </div>
          {[keep, send].map(
            (run, i) =>
              run.data &&
              run.data.length > 0 && (
                <Trouble key={i === 0 ? "keep" : "send"}>
                  {say("count.report", { n: run.data.length })}{" "}
                  {i === 0 ? say("record.notKept") : say("record.didNotGoOut")}: {run.data.join("; ")}.
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
                  {r.kept === 0 ? <span className="text-soft">{say("record.aDraft")}</span> : "kept"}
                  {r.kept > 0 && !r.student.contact && (
                    <span className="text-soft">{say("record.noMailAddressYet")}</span>
                  )}
                  {r.sending && <Fared sending={r.sending} />}
                </span>
              </li>
            ))}
            {view.reports.length === 0 && <li className="py-3 text-soft">{say("record.nobodyHasHadLessonTerm")}</li>}
          </ol>
          <p className="mt-2 text-soft">{say("record.eachTellsOneStudentOwn")}</p>
        </>
      )}
    </main>
  );
}
