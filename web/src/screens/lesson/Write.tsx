import { type FormEvent, useState } from "react";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";

type Props = { name: string; hint: string; ask: string; example: string; done: string; save: (text: string) => void };

// Write is a button that turns into one line of text where it stands, so that
// nothing covers the lesson.
export function Write({ name, hint, ask, example, done, save }: Props) {
  const [open, setOpen] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const text = String(new FormData(e.currentTarget).get("text")).trim();
    if (text) save(text);
    setOpen(false);
  };
  useKeys({ [hint.toLowerCase()]: () => setOpen(true) });
  if (!open) {
    return (
      <Button hint={hint} onClick={() => setOpen(true)}>
        {name}
      </Button>
    );
  }
  return (
    <form onSubmit={submit} className="flex gap-2">
      <input
        // biome-ignore lint/a11y/noAutofocus: the teacher asked for this field with a key
        autoFocus
        name="text"
        maxLength={500}
        aria-label={ask}
        placeholder={example}
        onKeyDown={(e) => e.key === "Escape" && setOpen(false)}
        className="w-40 rounded border border-line bg-ground px-3 placeholder:text-soft"
      />
      <Button type="submit">{done}</Button>
    </form>
  );
}
