// Reads MusicXML files with a library that is not ours and prints, for each,
// its notes as [part, staff, bar, onset, duration, pitch], times in quarter
// notes from the start of the bar.
import { readFileSync } from "node:fs";
import { parse, withAbsolutePositions } from "musicxml-io";

const alters = { "-2": "bb", "-1": "b", 0: "", 1: "#", 2: "##" };
const out = {};
for (const name of process.argv.slice(2)) {
  const score = parse(readFileSync(name, "utf8"));
  out[name] = score.parts.flatMap((part, p) => {
    let divisions = 1;
    return part.measures.flatMap((measure, m) => {
      divisions = measure.attributes?.divisions ?? divisions;
      return withAbsolutePositions(measure)
        .filter((note) => note.pitch && !note.grace)
        .map(({ pitch, staff, absolutePosition, duration }) => [
          p + 1,
          staff ?? 1,
          m + 1,
          absolutePosition / divisions,
          duration / divisions,
          `${pitch.step}${alters[pitch.alter ?? 0]}${pitch.octave}`,
        ]);
    });
  });
}
console.log(JSON.stringify(out));
