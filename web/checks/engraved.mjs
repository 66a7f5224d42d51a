// Hands MusicXML files to the engraver and prints, for each, what it draws: slurs
// and ties as pairs of note ids, and accidentals by note id.
import { readFileSync } from "node:fs";
import { VerovioToolkit } from "verovio/esm";
import createModule from "verovio/wasm";

const kit = new VerovioToolkit(await createModule());
const out = {};
for (const name of process.argv.slice(2)) {
  kit.loadData(readFileSync(name, "utf8"));
  const drawn = { slurs: [], ties: [], accidentals: {} };
  let note = "";
  for (const [tag, element] of kit.getMEI().matchAll(/<(note|accid|slur|tie)\b[^>]*>/g)) {
    const value = (attribute) => tag.match(` ${attribute}="#?([^"]*)"`)?.[1] ?? "";
    if (element === "note") note = value("xml:id");
    else if (element === "accid" && value("accid")) drawn.accidentals[note] = value("accid");
    else if (element !== "accid") drawn[`${element}s`].push([value("startid"), value("endid")]);
  }
  out[name] = drawn;
}
console.log(JSON.stringify(out));
