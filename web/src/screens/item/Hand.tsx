import { Fragment } from "react";
import type { Schemas } from "../../api/client";
import { Lies } from "../../parts/Lies";
import { note } from "../../parts/words";
import { rich, say } from "../../words/say";

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
  const fingerOf = (finger: string) =>
    finger === "0" ? say("item.openString") : finger && say("item.finger", { finger });
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      <p className="min-w-44 flex-1">
        {say("item.beginsWith")}{" "}
        {starts.map((s, i) => (
          <Fragment key={s.hand}>
            {i > 0 && say("item.the")}
            {rich("item.handOn", {
              hand: s.hand,
              finger: fingerOf(s.finger),
              b: (text) => <b className="font-[650]">{text}</b>,
              note: note(s.key),
            })}
          </Fragment>
        ))}
        {say("item.notes", { notes: chunk.notes })}
      </p>
      <Lies open={read.open} notes={notes} now={now} first={starts.map((s) => s.key)} of={say("item.thisChunk")} />
    </div>
  );
}
