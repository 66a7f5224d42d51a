import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { reportView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown, Trouble } from "../../parts/Told";
import { namedDay, plural, shortDay } from "../../parts/words";
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
export const keepReport = (student: string, body: Schemas["Report"]) =>
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
          <p className="m-4 rounded bg-raised p-4 text-soft">No term has begun yet.</p>
        ) : (
          <Report key={`${student} ${view.report.term.from} ${view.revisions.length}`} view={view} />
        )
      }
    </Shown>
  );
}

function Report({ view }: { view: View }) {
  const { student, revisions } = view;
  const go = useNavigate({ from: "/students/$student/report" });
  const term = view.terms[view.shown];
  const [report, write] = useState(view.report);
  const [paper, setPaper] = useState<Paper>("A4");
  const id = useRef(ulid());
  const settled = () => queries.invalidateQueries();
  const keep = useMutation({ mutationFn: () => keepReport(student.id, report), onSuccess: settled });
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
      <section aria-label="The report" className="rounded bg-raised p-5">
        <div className="mb-2 flex flex-wrap items-baseline gap-3">
          <h2 className="mr-auto text-head first-letter:uppercase">
            {term?.name}, {shortDay(report.term.from)} to {shortDay(report.term.to)}
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
              placeholder={p.key === "word" ? "A sentence of your own, to begin with" : "left out"}
              onChange={(e) => edit(p.key, e.target.value)}
              className="mt-0.5 block w-full rounded border border-line bg-ground px-2.5 py-1.5 text-large leading-snug"
            />
          </label>
        ))}
      </section>
      <aside aria-label="What becomes of it" className="space-y-3">
        <p className="text-soft">
          {last
            ? `Kept ${plural(revisions.length, "time")}, last on ${namedDay(last.at)}.`
            : "A draft from what was told. Reword it, leave a paragraph empty to leave it out, and keep it."}
        </p>
        <Button look={kept ? "quiet" : "main"} disabled={keep.isPending || kept} onClick={() => keep.mutate()}>
          {kept ? "Kept" : "Keep the report"}
        </Button>
        {!same(view.drafted) && (
          <Button look="quiet" onClick={() => write(view.drafted)}>
            As drafted from the facts of now
          </Button>
        )}
        {keep.error && <Trouble>{keep.error.message}</Trouble>}
        {revisions.length > 0 && (
          <div className="space-y-2 rounded bg-raised p-3">
            {!kept && <p className="text-soft">What goes out is the report as it was kept last.</p>}
            {student.contact ? (
              <Button look={kept ? "main" : "quiet"} disabled={send.isPending} onClick={() => send.mutate()}>
                {send.isPending ? "Sending …" : view.sending ? "Send it again" : "Send the report"}
              </Button>
            ) : (
              <p>No mail address yet: put one in on the week sheet.</p>
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
                One page to print
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
            All reports of the term
          </Link>
        </p>
      </aside>
    </main>
  );
}
