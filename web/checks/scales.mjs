// Reads a list of [tonic, form] and writes the notes of each scale, an octave up, as the
// library teoria spells them.
import { readFileSync } from "node:fs";
import teoria from "teoria";

const forms = { major: "major", natural: "minor", harmonic: "harmonicminor", melodic: "melodicminor" };
const asked = JSON.parse(readFileSync(0, "utf8"));
const out = asked.map(([tonic, form]) =>
  teoria
    .note(`${tonic}4`)
    .scale(forms[form])
    .notes()
    .map((n) => n.name().toUpperCase() + n.accidental()),
);
process.stdout.write(JSON.stringify(out));
