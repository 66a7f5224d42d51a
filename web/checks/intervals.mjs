// Names intervals by a library of music theory that is not ours. Reads from
// standard input a list of pairs of notes such as ["C4", "F#4"], low first;
// prints the interval of each, such as "A4".
import { readFileSync } from "node:fs";
import teoria from "teoria";

const note = (name) => teoria.note(name.toLowerCase().replaceAll("##", "x"));
const pairs = JSON.parse(readFileSync(0, "utf8"));
console.log(JSON.stringify(pairs.map(([a, b]) => teoria.interval(note(a), note(b)).toString())));
