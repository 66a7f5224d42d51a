import { type FormEvent, useId, useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { say } from "../words/say";
import { Button } from "./Button";
import type { Instrument } from "./instruments";
import { toCM, toShown, useUnits } from "./units";
import { Renewed, useKeep } from "./useKeep";

type Props = { student: string; home: Schemas["Home"]; title: string; plays?: Instrument; sitting?: boolean };

// HomeForm keeps what an instrument can do: a student's at home, or the studio's keyboard
// for the empty student; and where asked for, what one sits on there.
export function HomeForm(props: Props) {
  return <Renewed key={props.student}>{(done, kept) => <Form {...props} done={done} kept={kept} />}</Renewed>;
}

function Form({
  student,
  home: given,
  title,
  plays,
  sitting,
  kept,
  done,
}: Props & { kept: boolean; done: () => void }) {
  const [home] = useState(given);
  const id = useId();
  const unit = useUnits();
  const keyboard = (plays?.family ?? "keyboard") === "keyboard";
  const seated = sitting && plays?.seat !== "standing";
  const save = useKeep<Schemas["Home"]>(
    `home ${student}`,
    (body) => answer(api.PUT("/api/home", { params: { query: student ? { student } : {} }, body })),
    done,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const cm = (field: string) => toCM(Number(String(form.get(field)).replace(",", ".")) || 0, unit);
    const now = {
      ...home,
      ...(keyboard
        ? {
            keys: Number(form.get("keys")),
            noTouch: form.get("touch") === null,
            noPedals: form.get("pedals") === null,
          }
        : { smallSize: form.get("small") !== null }),
      ...(seated && { benchLow: cm("low"), benchHigh: cm("high") }),
      ...(seated && keyboard && { keyTops: cm("tops") }),
    };
    save.keep(now, home);
  };
  return (
    <form onSubmit={submit} aria-labelledby={id} className="space-y-2 rounded bg-raised p-4">
      <h2 id={id}>{title}</h2>
      {keyboard ? (
        <>
          <label className="flex items-center gap-2">
            {say("parts.keys")}
            <select
              name="keys"
              defaultValue={home.keys}
              className="min-w-0 max-w-full rounded border border-line bg-ground px-2 py-1.5 text-ink"
            >
              <option value={0}>{say("parts.88FullKeyboard")}</option>
              {[76, 61, 49, 37, 32, 25].map((n) => (
                <option key={n}>{n}</option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" name="touch" defaultChecked={!home.noTouch} />
            {say("parts.answersTouchSoftLoud")}
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" name="pedals" defaultChecked={!home.noPedals} />
            {say("parts.hasPedal")}
          </label>
        </>
      ) : (
        <label className="flex items-center gap-2">
          <input type="checkbox" name="small" defaultChecked={home.smallSize} />
          {say("parts.smallerSizeHalfThreeQuarters")}
        </label>
      )}
      {seated && (
        <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <legend className="sr-only">{say("parts.seatThere")}</legend>
          <Length name="low" says={say("parts.seatItsLowest")} cm={home.benchLow} />
          <Length name="high" says={say("parts.itsHighest")} cm={home.benchHigh} />
          {keyboard && <Length name="tops" says={say("parts.whiteKeysAboveFloor")} cm={home.keyTops} />}
        </fieldset>
      )}
      <p className="text-soft">{say("parts.plansSheetsAskOnlyWhat")}</p>
      {save.asked}
      <Button type="submit" disabled={save.busy}>
        {kept ? say("parts.saved") : say("parts.save")}
      </Button>
    </form>
  );
}

function Length({ name, says, cm }: { name: string; says: string; cm: number }) {
  const unit = useUnits();
  return (
    <label className="flex items-center gap-2">
      {says}
      <input
        name={name}
        inputMode="decimal"
        defaultValue={cm ? toShown(cm, unit) : ""}
        placeholder="—"
        className="w-16 rounded border border-line bg-ground px-2 py-1.5 text-right"
      />
      {unit}
    </label>
  );
}
