import { useMutation } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { SlotFields, slotOf } from "../../parts/StudentFields";
import { Trouble } from "../../parts/Told";

type Props = { slot: Schemas["SlotView"]; done: () => void };

export const field = "mt-0.5 block rounded border border-line bg-ground px-2 py-1.5";

// SlotForm gives a student another lesson time.
export function SlotForm({ slot, done }: Props) {
  const save = useMutation({
    mutationFn: (body: Schemas["Slot"]) =>
      answer(api.PUT("/api/students/{student}/slot", { params: { path: { student: slot.student } }, body })),
    onSuccess: async () => {
      await queries.invalidateQueries();
      done();
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    save.mutate(slotOf(new FormData(e.currentTarget)));
  };
  return (
    <form onSubmit={submit} aria-label={`${slot.name}'s lesson`} className="rounded bg-raised p-3">
      <h2 className="mb-2">{slot.name}'s lesson time</h2>
      <div className="flex flex-wrap items-end gap-3">
        <SlotFields slot={slot.slot} day="Day" className={field} />
        <Button look="main" type="submit" disabled={save.isPending}>
          Save
        </Button>
        <Button look="quiet" onClick={done}>
          Cancel
        </Button>
      </div>
      {save.error && <Trouble>{save.error.message}</Trouble>}
    </form>
  );
}
