import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { LanguageField } from "../../parts/LanguageField";
import { usualPaper } from "../../parts/prefs";
import { Trouble } from "../../parts/Told";
import { useKeep } from "../../parts/useKeep";
import { clock } from "../../parts/words";
import { say } from "../../words/say";
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
export function useSend(student: string, paper: Paper = usualPaper) {
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

// sends names the button that sends a sheet, or sends it again where it went out before.
export const sends = (last: Sending | undefined, first: string) =>
  last && last.state !== "undone" ? say("week.sendAgain") : first;

const says: Record<Sending["state"], string> = {
  waiting: say("week.goingOutFewSeconds"),
  sending: say("week.itsWay"),
  sent: say("week.sentTo"),
  failed: say("week.notSent"),
  refused: say("week.refusedAt"),
  bounced: say("week.cameBackFrom"),
  undone: say("week.undoneNothingWasSent"),
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
            {say("week.undo")}
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
    <section aria-label={say("week.byMail")} className="space-y-2">
      {student.contact ? (
        <>
          <Button look="main" className="w-full" disabled={going} onClick={send.put}>
            {going ? say("week.sending") : sends(last, say("week.sendSheet"))}
          </Button>
          {last ? (
            <Fared sending={last} />
          ) : (
            <p className="text-soft">{say("week.withNewLink", { contact: student.contact })}</p>
          )}
          <p>
            <Link to="/mailbox" className="underline underline-offset-4">
              {say("week.seeMailbox")}
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
  const [was] = useState({ address: student.contact, language: student.language });
  const save = useKeep<Schemas["Contact"]>("address", (body) =>
    answer(api.PUT("/api/students/{student}/contact", { params: { path: { student: student.id } }, body })),
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    save.keep({ address: String(form.get("contact")), language: String(form.get("language")) }, was);
  };
  return (
    <form onSubmit={submit} className="space-y-2" key={student.contact + student.language}>
      <label className="block">
        {say("week.sheetsGoGuardiansAddressStudents")}
        <input
          name="contact"
          type="email"
          multiple
          maxLength={400}
          defaultValue={was.address}
          placeholder={say("week.nameHomeExample")}
          className="mt-0.5 w-full rounded border border-line bg-raised px-2 py-1.5"
        />
      </label>
      <LanguageField label={say("week.languageHome")} value={was.language} usual={say("week.asOnYourScreens")} />
      <Button type="submit" disabled={save.busy}>
        {save.kept ? say("week.saved") : say("week.saveAddress")}
      </Button>
      {save.asked}
    </form>
  );
}
