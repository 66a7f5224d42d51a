import { type FormEvent, useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { SlotFields, slotOf } from "../../parts/StudentFields";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Props = { slot: Schemas["SlotView"]; done: () => void };

export const field = "mt-0.5 block rounded border border-line bg-ground px-2 py-1.5";

// SlotForm gives a student another lesson time.
export function SlotForm({ slot, done }: Props) {
  const [was] = useState(slot.slot);
  const save = useKeep<Schemas["Slot"]>(
    `lesson ${slot.student}`,
    (body) => answer(api.PUT("/api/students/{student}/slot", { params: { path: { student: slot.student } }, body })),
    done,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    save.keep(slotOf(new FormData(e.currentTarget)), was);
  };
  return (
    <form onSubmit={submit} aria-label={say("calendar.sLesson", { name: slot.name })} className="rounded bg-raised p-3">
      <h2 className="mb-2">{say("calendar.sLessonTime", { name: slot.name })}</h2>
      <div className="flex flex-wrap items-end gap-3">
        <SlotFields slot={was} day={say("calendar.day")} className={field} />
        <Button look="main" type="submit" disabled={save.busy}>
          {say("calendar.save")}
        </Button>
        <Button look="quiet" onClick={done}>
          {say("calendar.cancel")}
        </Button>
      </div>
      {save.asked}
    </form>
  );
}
