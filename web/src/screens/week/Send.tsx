import { useMutation } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
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

// useSend mails a student's sheet; however often it is touched while it is on its
// way, it goes once.
export function useSend(student: string, paper: Paper = "A4") {
  const id = useRef(ulid());
  const [held, setHeld] = useState<ReturnType<typeof setTimeout>>();
  const send = useMutation({
    mutationFn: () => sendSheet(student, id.current, paper),
    onSettled: () => {
      id.current = ulid();
      return Promise.all(
        [["student", student], ["sheets"], ["mailbox"]].map((queryKey) => queries.invalidateQueries({ queryKey })),
      );
    },
  });
  // A touch holds the letter for a moment, in which it can be taken back; leaving the
  // screen does not stop it.
  const hold = () => {
    if (held !== undefined || send.isPending) return;
    setHeld(
      setTimeout(() => {
        setHeld(undefined);
        send.mutate();
      }, moment),
    );
  };
  const back = () => {
    clearTimeout(held);
    setHeld(undefined);
  };
  return { ...send, held: held !== undefined, hold, back };
}

// moment is how long a letter can be taken back, in milliseconds.
const moment = 4000;

// Held says that a letter is about to go, and takes it back.
export function Held({ back }: { back: () => void }) {
  return (
    <p role="status" className="flex flex-wrap items-center gap-3">
      It goes out in a moment.
      <Button onClick={back}>Take it back</Button>
    </p>
  );
}

// latest is a sending as it was last heard of: from the view, once that knows it.
export const latest = (answered?: Sending, seen?: Sending) => (seen?.id === answered?.id ? seen : (answered ?? seen));

// wentOut fails with what the server says where a letter did not go out.
export function wentOut(fared: Sending) {
  if (fared.state !== "sent") throw new Error(fared.says);
}

// onTheWay tells a sheet that needs no sending: it went out, or is going.
export const onTheWay = (s?: Sending) => s?.state === "sent" || s?.state === "sending";

const says: Record<Sending["state"], string> = {
  sending: "On its way to",
  sent: "Sent to",
  failed: "Not sent to",
  refused: "Refused at",
  bounced: "Came back from",
};

// Fared says what became of a sheet's mail.
export function Fared({ sending }: { sending: Sending }) {
  const zone = useDay().data?.zone ?? "UTC";
  const well = onTheWay(sending);
  return (
    <p role="status" className={well ? "text-keep" : "border-l-4 border-warn pl-2"}>
      {well ? "✓ " : ""}
      {says[sending.state]} {sending.address}, {clock(sending.at, zone)}.{" "}
      {!well && <span className="text-soft">{sending.says}.</span>}
    </p>
  );
}

type Props = { student: Schemas["StudentCard"]; sending?: Sending; paper: Paper };

// Send puts the sheet on its way to the family by mail.
export function Send({ student, sending, paper }: Props) {
  const send = useSend(student.id, paper);
  const last = latest(send.data, sending);
  return (
    <section aria-label="By mail" className="space-y-2">
      {student.contact ? (
        <>
          {send.held ? (
            <Held back={send.back} />
          ) : (
            <Button look="main" className="w-full" disabled={send.isPending} onClick={send.hold}>
              {send.isPending ? "Sending …" : last ? "Send it again" : "Send the sheet"}
            </Button>
          )}
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
      {last && !onTheWay(last) && <Contact student={student} />}
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
