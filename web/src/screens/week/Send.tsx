import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type FormEvent, useRef } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { clock } from "../../parts/words";
import type { Paper } from "./OnePage";

type Sending = Schemas["Sending"];

// sendSheet mails the sheet of a student's lesson, of the last without a day; the same id again sends nothing more.
export const sendSheet = (student: string, id: string, paper: Paper, day?: string) =>
  answer(
    api.POST("/api/students/{student}/sendings", {
      params: { path: { student } },
      body: { id, paper, ...(day && { day }) },
    }),
  );

// moving tells that a letter is not settled yet.
const moving = (s?: Sending) => s?.state === "waiting" || s?.state === "sending";

// refreshed asks anew for the views that show how letters fared.
const refreshed = () =>
  Promise.all([["student"], ["sheets"], ["mailbox"]].map((queryKey) => queries.invalidateQueries({ queryKey })));

// useFared follows a sending, as a view or an answer had it, until it is settled.
export function useFared(seen?: Sending) {
  const { data } = useQuery({
    queryKey: ["sending", seen?.id],
    queryFn: async () => {
      const now = await answer(api.GET("/api/sendings/{sending}", { params: { path: { sending: seen?.id ?? "" } } }));
      if (!moving(now)) refreshed();
      return now;
    },
    enabled: moving(seen),
    refetchInterval: (query) => (moving(query.state.data ?? seen) ? 1000 : false),
  });
  return moving(seen) ? (data ?? seen) : seen;
}

// useUndo takes back the letters of a sending that still wait.
function useUndo(sending: Sending) {
  return useMutation({
    mutationFn: () => answer(api.DELETE("/api/sendings/{sending}", { params: { path: { sending: sending.id } } })),
    onSuccess: (fared) => queries.setQueryData(["sending", sending.id], fared),
    onSettled: () => queries.invalidateQueries({ queryKey: ["sending", sending.id] }),
  });
}

// useSend puts a student's sheet into the post, where it waits for a few seconds; a second touch meanwhile sends
// nothing more.
export function useSend(student: string, paper: Paper = "A4") {
  const id = useRef(ulid());
  const send = useMutation({
    mutationFn: () => sendSheet(student, id.current, paper),
    onSettled: () => {
      id.current = ulid();
      return refreshed();
    },
  });
  return { ...send, put: () => !send.isPending && send.mutate() };
}

// latest is a sending as it was last heard of: from the view, once that knows it.
export const latest = (answered?: Sending, seen?: Sending) => (seen?.id === answered?.id ? seen : (answered ?? seen));

// onTheWay tells a sheet that needs no sending: it went out, or is going.
export const onTheWay = (s?: Sending) => s?.state === "sent" || moving(s);

const says: Record<Sending["state"], string> = {
  waiting: "Going out in a few seconds to",
  sending: "On its way to",
  sent: "Sent to",
  failed: "Not sent to",
  refused: "Refused at",
  bounced: "Came back from",
  undone: "Undone. Nothing was sent to",
};

// Fared says what became of a letter, and takes it back while it waits.
export function Fared({ sending }: { sending: Sending }) {
  const zone = useDay().data?.zone ?? "UTC";
  const now = useFared(sending) ?? sending;
  const undo = useUndo(sending);
  const well = onTheWay(now);
  return (
    <div role="status" className={well ? "text-keep" : now.state === "undone" ? "" : "border-l-4 border-warn pl-2"}>
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span>
          {now.state === "sent" ? "✓ " : ""}
          {says[now.state]} {now.address}, {clock(now.at, zone)}.{" "}
          {now.says && <span className="text-soft">{now.says}.</span>}
        </span>
        {now.state === "waiting" && (
          <Button disabled={undo.isPending} onClick={() => undo.mutate()}>
            Undo
          </Button>
        )}
      </p>
      {undo.error && <Trouble>{undo.error.message}</Trouble>}
    </div>
  );
}

type Props = { student: Schemas["StudentCard"]; sending?: Sending; paper: Paper };

// Send puts the sheet on its way to the family by mail.
export function Send({ student, sending, paper }: Props) {
  const send = useSend(student.id, paper);
  const last = useFared(latest(send.data, sending));
  const going = send.isPending || moving(last);
  return (
    <section aria-label="By mail" className="space-y-2">
      {student.contact ? (
        <>
          <Button look="main" className="w-full" disabled={going} onClick={send.put}>
            {going ? "Sending …" : last && last.state !== "undone" ? "Send again" : "Send sheet"}
          </Button>
          {last ? <Fared sending={last} /> : <p className="text-soft">To {student.contact}, with a new link.</p>}
          <p>
            <Link to="/mailbox" className="underline underline-offset-4">
              See the mailbox
            </Link>
          </p>
        </>
      ) : (
        <Contact student={student} />
      )}
      {last && !onTheWay(last) && last.state !== "undone" && <Contact student={student} />}
      {send.error && <Trouble>{send.error.message}</Trouble>}
    </section>
  );
}

// Contact keeps the address that sheets go to.
export function Contact({ student }: { student: Schemas["StudentCard"] }) {
  const save = useMutation({
    mutationFn: (address: string) =>
      answer(
        api.PUT("/api/students/{student}/contact", { params: { path: { student: student.id } }, body: { address } }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    save.mutate(String(new FormData(e.currentTarget).get("contact")));
  };
  return (
    <form onSubmit={submit} className="space-y-2" key={student.contact}>
      <label className="block">
        Sheets go to (a guardian's address or the student's own; up to four with commas between them)
        <input
          name="contact"
          type="email"
          multiple
          maxLength={400}
          defaultValue={student.contact}
          placeholder="name@home.example"
          className="mt-0.5 w-full rounded border border-line bg-raised px-2 py-1.5"
        />
      </label>
      <Button type="submit" disabled={save.isPending}>
        {save.isSuccess ? "Kept" : "Keep the address"}
      </Button>
      {save.error && <Trouble>{save.error.message}</Trouble>}
    </form>
  );
}
