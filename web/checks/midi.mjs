// Reads MIDI files with a library that is not ours and prints, for each, its
// notes as [onset, end, key], times in quarter notes.
import { readFileSync } from "node:fs";
import midi from "@tonejs/midi";

const out = {};
for (const name of process.argv.slice(2)) {
  const file = new midi.Midi(readFileSync(name));
  const ppq = file.header.ppq;
  out[name] = file.tracks.flatMap((t) =>
    t.notes.map((n) => [n.ticks / ppq, (n.ticks + n.durationTicks) / ppq, n.midi]),
  );
}
console.log(JSON.stringify(out));
