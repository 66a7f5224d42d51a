import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { mailboxView } from "../../api/views";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";

type Letter = Schemas["LetterView"];

// MailboxScreen reads what stayed in the program's own mailbox.
export function MailboxScreen() {
  const query = useQuery(mailboxView);
  return (
    <Shown query={query}>
      {(view) => (
        <main className="flex flex-1 flex-col gap-3 px-4 pt-3 pb-6">
          <h1 className="text-head">{say("mailbox.mailbox")}</h1>
          {view.on ? (
            <p className="text-soft">{say("mailbox.noMailServerSetSo")}</p>
          ) : (
            <p className="text-soft">{say("mailbox.mailGoesOutThroughServer")}</p>
          )}
          {view.letters.length > 0 ? (
            <Letters letters={view.letters} />
          ) : (
            view.on && <p>{say("mailbox.nothingHasBeenSentYet")}</p>
          )}
        </main>
      )}
    </Shown>
  );
}

function Letters({ letters }: { letters: Letter[] }) {
  const [picked, pick] = useState<string>();
  const letter = letters.find((l) => l.id === picked) ?? (letters[0] as Letter);
  return (
    <div className="grid flex-1 gap-4 lg:grid-cols-[320px_1fr]">
      <ol
        aria-label={say("count.letter", { n: letters.length })}
        className="divide-y divide-faint self-start rounded bg-raised"
      >
        {letters.map((l) => (
          <li key={l.id}>
            <button
              type="button"
              aria-pressed={l.id === letter.id}
              className={`w-full px-3 py-2 text-left ${l.id === letter.id ? "border-l-4 border-ink bg-faint" : "hover:bg-faint"}`}
              onClick={() => pick(l.id)}
            >
              <b className="block font-[620]">{l.subject}</b>
              <span className="text-soft">{l.to}</span>
            </button>
          </li>
        ))}
      </ol>
      <Opened key={letter.id} letter={letter} />
    </div>
  );
}

function Opened({ letter }: { letter: Letter }) {
  const [plain, setPlain] = useState(false);
  return (
    <article className="flex min-w-0 flex-col rounded bg-raised p-4">
      <h2 className="text-large">{letter.subject}</h2>
      <p className="text-soft">{say("mailbox.fromTo", { from: letter.from, to: letter.to })}</p>
      <p className="my-2 flex flex-wrap items-center gap-4">
        {letter.files.map((f) => (
          <a
            key={f}
            href={`/api/mailbox/${letter.id}/${encodeURIComponent(f)}`}
            className="font-[620] underline underline-offset-4"
          >
            {f}
          </a>
        ))}
        <label className="inline-flex items-center gap-1.5">
          <input type="checkbox" checked={plain} onChange={(e) => setPlain(e.target.checked)} />{" "}
          {say("mailbox.plainText")}
        </label>
      </p>
      {plain ? (
        <pre className="font-sans whitespace-pre-wrap">{linked(letter.text)}</pre>
      ) : (
        <iframe
          title={letter.subject}
          className="min-h-[34rem] w-full flex-1 rounded border border-line bg-white"
          sandbox="allow-popups allow-popups-to-escape-sandbox"
          srcDoc={`<base target="_blank">${letter.html}`}
        />
      )}
    </article>
  );
}

// linked makes addresses in a text into links.
function linked(text: string) {
  return text.split(/(https?:\/\/\S+)/).map((part, i) =>
    i % 2 === 1 ? (
      <a key={part} href={part} className="underline">
        {part}
      </a>
    ) : (
      part
    ),
  );
}
