import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useId } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

type Props = { student: string; home: Schemas["Home"]; title: string };

// HomeForm keeps what a keyboard can do: a student's at home, or the studio's
// for the empty student.
export function HomeForm({ student, home, title }: Props) {
  const id = useId();
  const save = useMutation({
    mutationFn: (body: Schemas["Home"]) =>
      answer(api.PUT("/api/home", { params: { query: student ? { student } : {} }, body })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    save.mutate({
      ...home,
      keys: Number(form.get("keys")),
      noTouch: form.get("touch") === null,
      noPedals: form.get("pedals") === null,
    });
  };
  return (
    <form onSubmit={submit} aria-labelledby={id} className="space-y-2 rounded bg-raised p-4">
      <h2 id={id}>{title}</h2>
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
      <p className="text-soft">Plans and sheets ask only what it can do.</p>
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <Button type="submit" disabled={save.isPending}>
        {save.isSuccess ? "Kept" : "Keep"}
      </Button>
    </form>
  );
}
