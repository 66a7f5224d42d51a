import { type ReactNode, useRef } from "react";
import { say } from "../words/say";
import { Button } from "./Button";
import { Trouble } from "./Told";

type Props = {
  title: string;
  says: string;
  href: string; // where the table is taken out
  name: string; // of the file that is asked for
  busy: boolean;
  take: (file: File) => void;
  error?: Error | null;
  children: ReactNode;
};

// TableFile takes something out as a table and brings one in.
export function TableFile(p: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <section aria-label={p.title} className="space-y-2 rounded bg-raised p-4">
      <h2>{p.title}</h2>
      <p className="text-soft">{say("parts.nothingKeptBeforeHaveSeen", { says: p.says })}</p>
      <div className="flex flex-wrap items-center gap-2">
        <a href={p.href} download className="rounded px-1 py-2 font-[620] underline underline-offset-4">
          {say("parts.takeOut")}
        </a>
        <Button onClick={() => input.current?.click()} disabled={p.busy}>
          {say("parts.bringOne")}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,.txt,text/csv"
          aria-label={p.name}
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) p.take(file);
            e.target.value = "";
          }}
        />
      </div>
      {p.error ? <Trouble>{p.error.message}</Trouble> : p.children}
    </section>
  );
}

// asTable is how a file goes to the server as it is.
export const asTable = (file: File) => ({
  body: file as unknown as string,
  bodySerializer: (f: unknown) => f as Blob,
  headers: { "Content-Type": "application/octet-stream" },
});
