import { Fragment } from "react";
import type { Schemas } from "../../api/client";
import { Lies } from "../../parts/Lies";
import { note } from "../../parts/words";

type Read = Schemas["ReadingView"];

// Hand says how a chunk begins and draws where its notes lie.
export function Hand({
  read,
  chunk,
  staves,
  now,
}: {
  read: Read;
  chunk: Schemas["Chunk"];
  staves: number[];
  now: string[];
}) {
  const from = read.sounds.find((s) => s.id === chunk.fromId)?.onset ?? 0;
  const to = read.sounds.find((s) => s.id === chunk.toId)?.onset ?? from;
  const notes = read.sounds.filter((s) => staves.includes(s.staff) && s.onset >= from && s.onset <= to);
  const starts = chunk.starts ?? [{ hand: chunk.hand, ...chunk.start }];
  const fingerOf = (finger: string) => (finger === "0" ? "open string" : finger && `finger ${finger}`);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      <p className="min-w-44 flex-1">
        Begins with the{" "}
        {starts.map((s, i) => (
          <Fragment key={s.hand}>
            {i > 0 && ", the "}
            {s.hand} hand, <b className="font-[650]">{fingerOf(s.finger)}</b> on{" "}
            <b className="font-[650]">{note(s.key)}</b>
          </Fragment>
        ))}
        ; {chunk.notes} notes.
      </p>
      <Lies open={read.open} notes={notes} now={now} first={starts.map((s) => s.key)} of="this chunk" />
    </div>
  );
}
