import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { reportView } from "../../api/views";
import { Button } from "../../parts/Button";
import { usualPaper } from "../../parts/prefs";
import { Shown, Trouble } from "../../parts/Told";
import { Renewed, useKeep } from "../../parts/useKeep";
import { namedDay, shortDay } from "../../parts/words";
import { say } from "../../words/say";
import { type Paper, Papers } from "../week/OnePage";
import { Fared } from "../week/Send";
import { PickTerm } from "./PickTerm";

type View = Schemas["ReportView"];

// sendReport mails a report as it was kept; the same id again sends nothing more.
export const sendReport = (student: string, from: string, id: string, paper: Paper) =>
  answer(
    api.POST("/api/students/{student}/report/letters", { params: { path: { student } }, body: { id, paper, from } }),
  );

// keepReport keeps a report as the teacher wrote it.
export const keepReport = (student: string, body: Schemas["ChangeReport"]) =>
  answer(api.PUT("/api/students/{student}/report", { params: { path: { student } }, body }));

// printed is where the pages of kept reports are.
export const printed = (from: string, paper: Paper, student = "") =>
  `/api/reports.pdf?from=${from}&paper=${paper}${student && `&student=${student}`}`;

// ReportScreen: a term's report on one page, drafted from what was told, to be read, reworded, kept
// and sent.
export function ReportScreen() {
  const { student } = useParams({ from: "/inside/students/$student/report" });
  const { from } = useSearch({ from: "/inside/students/$student/report" });
  const query = useQuery(reportView(student, from));
  return (
    <Shown query={query}>
      {(view) =>
        view.shown < 0 ? (
          <p className="m-4 rounded bg-raised p-4 text-soft">{say("record.noTermHasBegunYet")}</p>
        ) : (
          <Renewed key={`${student} ${view.report.term.from}`}>{(done) => <Report view={view} done={done} />}</Renewed>
        )
      }
    </Shown>
  );
}

function Report({ view, done }: { view: View; done: () => void }) {
  const { student, revisions } = view;
  const go = useNavigate({ from: "/students/$student/report" });
  const term = view.terms[view.shown];
  const [was] = useState(view.report);
  const [report, write] = useState(was);
  const [paper, setPaper] = useState<Paper>(usualPaper);
  const id = useRef(ulid());
  const settled = () => queries.invalidateQueries();
  const keep = useKeep<Schemas["Report"]>(
    `report ${view.report.term.from}`,
    (body) => keepReport(student.id, body),
    done,
  );
  const send = useMutation({
    mutationFn: () => sendReport(student.id, report.term.from, id.current, paper),
    onSettled: () => {
      id.current = ulid();
      return settled();
    },
  });
  const same = (r: Schemas["Report"]) => JSON.stringify(r.paragraphs) === JSON.stringify(report.paragraphs);
  const kept = revisions.length > 0 && same(view.report);
  const edit = (key: string, text: string) =>
    write({ ...report, paragraphs: report.paragraphs.map((p) => (p.key === key ? { ...p, text } : p)) });
  const last = revisions.at(-1);
  return (
    <main className="grid flex-1 content-start gap-6 px-4 pb-6 lg:grid-cols-[1fr_320px]">
      <section aria-label={say("record.theReport")} className="rounded bg-raised p-5">
        <div className="mb-2 flex flex-wrap items-baseline gap-3">
          <h2 className="mr-auto text-head first-letter:uppercase">
            {say("record.to", { name: term?.name, day: shortDay(report.term.from), day2: shortDay(report.term.to) })}
          </h2>
          <PickTerm terms={view.terms} shown={view.shown} choose={(from) => go({ search: { from } })} />
        </div>
        {report.paragraphs.map((p) => (
          <label key={p.key} className="mt-3 block">
            <b className="font-[650]">{p.title}</b>
            <textarea
              name={p.key}
              value={p.text}
              maxLength={2000}
              rows={Math.max(2, Math.ceil(p.text.length / 90))}
              placeholder={p.key === "word" ? say("record.sentenceOwnBeginWith") : say("record.leftOut")}
              onChange={(e) => edit(p.key, e.target.value)}
              className="mt-0.5 block w-full rounded border border-line bg-ground px-2.5 py-1.5 text-large leading-snug"
            />
          </label>
        ))}
      </section>
      <aside aria-label={say("record.whatBecomes")} className="space-y-3">
        <p className="text-soft">
          {last
            ? say("record.savedTimesLast", { revisions: revisions.length, day: namedDay(last.at) })
            : say("record.draftFromNotesRewordEmpty")}
        </p>
        <Button look={kept ? "quiet" : "main"} disabled={keep.busy || kept} onClick={() => keep.keep(report, was)}>
          {kept ? say("record.saved") : say("record.saveReport")}
        </Button>
        {!same(view.drafted) && (
          <Button look="quiet" onClick={() => write(view.drafted)}>
            {say("record.draftedFromFactsNow")}
          </Button>
        )}
        {keep.asked}
        {revisions.length > 0 && (
          <div className="space-y-2 rounded bg-raised p-3">
            {!kept && <p className="text-soft">{say("record.whatGoesOutReportWas")}</p>}
            {student.contact ? (
              <Button look={kept ? "main" : "quiet"} disabled={send.isPending} onClick={() => send.mutate()}>
                {send.isPending
                  ? say("record.sending")
                  : view.sending
                    ? say("record.sendAgain")
                    : say("record.sendReport")}
              </Button>
            ) : (
              <p>{say("record.noMailAddressYetPut")}</p>
            )}
            {view.sending && <Fared sending={view.sending} />}
            {send.error && <Trouble>{send.error.message}</Trouble>}
            <p className="flex flex-wrap items-center gap-3">
              <Papers paper={paper} choose={setPaper} />
              <a
                href={printed(report.term.from, paper, student.id)}
                className="font-[620] underline underline-offset-4"
                download
              >
                {say("record.onePagePrint")}
              </a>
            </p>
          </div>
        )}
        <p>
          <Link
            to="/studio/reports"
            search={{ from: report.term.from }}
            className="inline-block underline underline-offset-4"
          >
            {say("record.allReportsTerm")}
          </Link>
        </p>
      </aside>
    </main>
  );
}
