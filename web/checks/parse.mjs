// Parses a MusicXML file a number of times with a library that is not ours and
// prints the median of the times in milliseconds.
import { readFileSync } from "node:fs";
import { parse } from "musicxml-io";

const [name, rounds] = process.argv.slice(2);
const text = readFileSync(name, "utf8");
const times = [];
for (let i = 0; i < rounds; i++) {
  const start = performance.now();
  parse(text);
  times.push(performance.now() - start);
}
times.sort((a, b) => a - b);
console.log(times[Math.floor(times.length / 2)]);
