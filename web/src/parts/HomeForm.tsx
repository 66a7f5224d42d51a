import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useId } from "react";
import { answer, api, queries, type Schemas } from "../api/client";
import { Button } from "./Button";
import type { Instrument } from "./instruments";
import { Trouble } from "./Told";
import { toCM, toShown, useUnits } from "./units";

type Props = { student: string; home: Schemas["Home"]; title: string; plays?: Instrument; sitting?: boolean };

// HomeForm keeps what an instrument can do: a student's at home, or the studio's keyboard
// for the empty student; and where asked for, what one sits on there.
export function HomeForm({ student, home, title, plays, sitting }: Props) {
  const id = useId();
  const unit = useUnits();
  const keyboard = (plays?.family ?? "keyboard") === "keyboard";
  const seated = sitting && plays?.seat !== "standing";
  const save = useMutation({
    mutationFn: (body: Schemas["Home"]) =>
      answer(api.PUT("/api/home", { params: { query: student ? { student } : {} }, body })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const cm = (field: string) => toCM(Number(String(form.get(field)).replace(",", ".")) || 0, unit);
    save.mutate({
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
    });
  };
  return (
    <form onSubmit={submit} aria-labelledby={id} className="space-y-2 rounded bg-raised p-4">
      <h2 id={id}>{title}</h2>
      {keyboard ? (
        <>
          <label className="flex items-center gap-2">
            Keys
            <select
              name="keys"
              defaultValue={home.keys}
              className="rounded border border-line bg-ground px-2 py-1.5 text-ink"
            >
              <option value={0}>88, the full keyboard</option>
              {[76, 61, 49, 37, 32, 25].map((n) => (
                <option key={n}>{n}</option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" name="touch" defaultChecked={!home.noTouch} />
            Answers to touch, soft and loud
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" name="pedals" defaultChecked={!home.noPedals} />
            Has a pedal
          </label>
        </>
      ) : (
        <label className="flex items-center gap-2">
          <input type="checkbox" name="small" defaultChecked={home.smallSize} />A smaller size: half, three quarters
        </label>
      )}
      {seated && (
        <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <legend className="sr-only">The seat there</legend>
          <Length name="low" says="Seat at its lowest" cm={home.benchLow} />
          <Length name="high" says="at its highest" cm={home.benchHigh} />
          {keyboard && <Length name="tops" says="White keys above the floor" cm={home.keyTops} />}
        </fieldset>
      )}
      <p className="text-soft">Plans and sheets ask only what it can do.</p>
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <Button type="submit" disabled={save.isPending}>
        {save.isSuccess ? "Kept" : "Keep"}
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
