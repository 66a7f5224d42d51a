import { type FormEvent, useState } from "react";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";

type Props = {
  name: string;
  of: string; // whom it is about: what is half written waits for its student
  hint: string;
  ask: string;
  example: string;
  done: string;
  save: (text: string) => void;
};

// keepDraft keeps what is half written while the tab is open; an empty text drops it.
function keepDraft(key: string, text: string) {
  if (text.trim()) sessionStorage.setItem(key, text);
  else sessionStorage.removeItem(key);
}

// Write is a button that turns into one line of text where it stands, so that
// nothing covers the lesson.
export function Write({ name, of, hint, ask, example, done, save }: Props) {
  const draft = `ladder.draft.${of}.${name}`;
  const [open, setOpen] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const text = String(new FormData(e.currentTarget).get("text")).trim();
    if (text) save(text);
    sessionStorage.removeItem(draft);
    setOpen(false);
  };
  useKeys({ [hint.toLowerCase()]: () => setOpen(true) });
  if (!open) {
    return (
      <Button hint={hint} onClick={() => setOpen(true)}>
        {name}
        {sessionStorage.getItem(draft) !== null && "…"}
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
        defaultValue={sessionStorage.getItem(draft) ?? ""}
        onChange={(e) => keepDraft(draft, e.target.value)}
        onKeyDown={(e) => e.key === "Escape" && setOpen(false)}
        className="w-40 rounded border border-line bg-ground px-3 placeholder:text-soft"
      />
      <Button type="submit">{done}</Button>
    </form>
  );
}
