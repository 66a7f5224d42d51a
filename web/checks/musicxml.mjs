// Reads MusicXML files with a library that is not ours and prints, for each,
// its notes as [part, staff, bar, onset, duration, pitch], times in quarter
// notes from the start of the bar, and what the library finds wrong with it,
// such as bars that are too long, beams left open, staves that are not there.
import { readFileSync } from "node:fs";
import { parse, validate, withAbsolutePositions } from "musicxml-io";

const alters = { "-2": "bb", "-1": "b", 0: "", 1: "#", 2: "##" };
// pickups are short, and the library follows no tie over a bar line
const fine = ["MEASURE_DURATION_UNDERFLOW", "TIE_STOP_WITHOUT_START"];
const out = {};
for (const name of process.argv.slice(2)) {
  const score = parse(readFileSync(name, "utf8"));
  const { errors, warnings } = validate(score);
  const flaws = [...errors, ...warnings].filter((f) => !fine.includes(f.code)).map((f) => `${f.code}: ${f.message}`);
  const notes = score.parts.flatMap((part, p) => {
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
  out[name] = { notes, flaws };
}
console.log(JSON.stringify(out));
