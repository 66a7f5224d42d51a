import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { namedDay } from "../../parts/words";
import { say } from "../../words/say";

type Talk = Schemas["Talk"];

const withWhom = {
  family: say("record.withFamily"),
  student: say("record.withStudent"),
  both: say("record.withFamilyStudent"),
};

// CheckIn plans the next talk with home: when, with whom, about what; and keeps what was agreed, beside
// what came of what was agreed before.
export function CheckIn({ student, talk }: { student: string; talk: Talk }) {
  const [open, setOpen] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    tell(student, {
      kind: "talked",
      with: String(form.get("with")) as Talk["with"],
      agreed: String(form.get("agreed")).trim(),
    });
    setOpen(false);
  };
  const days = (n: number) => n.toFixed(1);
  return (
    <section aria-label={say("record.checkIn")} className="mt-5">
      <h2 className="mb-1.5">{say("record.checkIn")}</h2>
      <div className="space-y-2 rounded bg-raised p-3">
        {talk.due && (
          <p className={talk.over ? "text-now" : "text-soft"}>
            {talk.over ? say("record.dueSince") : say("record.nextOn")} {namedDay(talk.due)}, {withWhom[talk.with]}.
          </p>
        )}
        <ul className="list-disc space-y-0.5 pl-5">
          {talk.about.map((r) => (
            <li key={r.code + JSON.stringify(r.args)}>{r.says}</li>
          ))}
        </ul>
        {open ? (
          <form onSubmit={submit} className="space-y-2">
            <label className="block">
              {say("record.whatWasAgreed")}
              <textarea
                // biome-ignore lint/a11y/noAutofocus: the teacher asked for this field
                autoFocus
                name="agreed"
                rows={2}
                maxLength={2000}
                className="mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5"
              />
            </label>
            <label>
              {say("record.talked")}{" "}
              <select name="with" defaultValue={talk.with} className="rounded border border-line bg-ground px-2 py-1.5">
                {Object.entries(withWhom).map(([key, name]) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <p>
              <Button look="main" type="submit">
                {say("record.saveCheck")}
              </Button>
            </p>
          </form>
        ) : (
          <Button onClick={() => setOpen(true)}>{say("record.weHaveTalked")}</Button>
        )}
        {talk.agreed.length > 0 && (
          <ul className="divide-y divide-faint border-t border-faint">
            {talk.agreed.map((a) => (
              <li key={a.day + a.text} className="py-1">
                <span className="text-soft">{namedDay(a.day)}:</span> {a.text || say("record.nothingWasAgreed")}
                <br />
                <span className="text-soft">
                  {say("record.daysHomeWeekBefore", { days: days(a.before) })}
                  {a.after >= 0 && say("record.since", { days: days(a.after) })}.
                </span>
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  );
}
