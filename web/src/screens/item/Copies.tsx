import type { Schemas } from "../../api/client";
import { say } from "../../words/say";

// Copies offers the score as files, and one with marks for a notation program.
export function Copies({ item, student, read }: { item: string; student: string; read: Schemas["ReadingView"] }) {
  const at = (query: string) => `/api/items/${item}/file?${query}${student ? `&student=${student}` : ""}`;
  return (
    <details className="rounded bg-raised px-4 py-3">
      <summary className="cursor-pointer font-[650]">{say("item.copiesTakeOut")}</summary>
      <ul className="mt-1 divide-y divide-faint">
        {read.copies.map((c) => (
          <li key={c.format} className="py-1.5">
            <a href={at(`format=${c.format}`)} className="font-[620] underline underline-offset-4">
              {c.name}
            </a>
            <span className="block text-small text-soft">
              {c.losses.length === 0
                ? say("item.holdsAll")
                : say("item.doesNotHold", {
                    list: c.losses
                      .map((l) =>
                        say("item.bar4", {
                          what: l.what,
                          bar: l.bar,
                          value: l.count > 1 ? ` ${say("item.andMore", { n: l.count - 1 })}` : "",
                        }),
                      )
                      .join("; "),
                  })}
            </span>
          </li>
        ))}
        <li className="py-1.5">
          <a
            href={at("format=musicxml&layers=direction,fingers,positions,patterns,tablature")}
            className="font-[620] underline underline-offset-4"
          >
            {say("item.musicxmlWithMarks")}
          </a>
          <span className="block text-small text-soft">{say("item.directionsFingersPositionsFiguresWritten")}</span>
        </li>
      </ul>
    </details>
  );
}
