import { queryOptions } from "@tanstack/react-query";
import { say } from "../words/say";

// The engraver is large, so it is loaded when a score is first shown.
let loading: Promise<(xml: string, verses: number, cut?: Cut) => string> | undefined;
let loaded = false;

// engraves reports whether the engraver is here, so that a score is drawn at once.
export const engraves = () => loaded;

// A Cut is how some bars of a score are laid out for a sheet: cropped to what is
// drawn, with room above each line for brackets, and with large labels. The width of a
// line is in the engraver's units; that many are a page wide.
export type Cut = { bars: [number, number]; width: number; room: number };

function engraver() {
  loading ??= (async () => {
    const [{ default: createModule }, { VerovioToolkit }] = await Promise.all([
      import("verovio/wasm"),
      import("verovio/esm"),
    ]);
    const kit = new VerovioToolkit(await createModule());
    loaded = true;
    return (xml: string, verses: number, cut?: Cut) => {
      kit.setOptions({
        pageWidth: cut?.width ?? 1500,
        pageHeight: 60000,
        adjustPageHeight: true,
        scale: 42,
        svgViewBox: true,
        smuflTextFont: "embedded",
        lyricSize: 4,
        spacingSystem: cut ? 4 + cut.room : 14,
        spacingLinear: cut ? 0.2 : 0.25, // a sheet's lines hold more
        spacingStaff: (cut ? 16 : 19) + 5 * Math.max(0, verses - 1), // brackets of the next staff stand under the labels
        header: "none",
        footer: "none",
        pageMarginTop: 110,
        pageMarginBottom: 20,
        pageMarginLeft: 20,
        pageMarginRight: 20,
      });
      kit.select(cut ? { measureRange: `${cut.bars[0]}-${cut.bars[1]}` } : {});
      if (!kit.loadData(xml)) throw new Error(say("parts.scoreNotDrawn"));
      return kit.renderToSVG(1);
    };
  })().catch((cause) => {
    loading = undefined; // what could not be fetched is asked for again
    throw cause;
  });
  return loading;
}

// A Verse is one line of labels under the staff, by the note's id.
export type Verse = Record<string, string>;

// wide makes a text under the notes as long as it is drawn: our letters are wider
// than the engraver thinks. What stands after a figure and before a usual space it
// takes for the number of a verse.
const wide = (text: string) => text.replaceAll(" ", "\u2002") + "\u2002".repeat(Math.floor((text.length + 1) / 4));

// withVerses writes lines of labels into a score as verses, so that the engraver
// finds room for them, and for the words that are sung.
export function withVerses(xml: string, verses: Verse[]): string {
  if (verses.length === 0 && !xml.includes("<lyric")) return xml;
  const doc = new DOMParser().parseFromString(xml, "application/xml");
  const words = doc.querySelectorAll("lyric > text");
  for (const text of words) text.textContent = wide(text.textContent ?? "");
  const sung = words.length > 0 ? 1 : 0;
  for (const [i, verse] of verses.entries()) {
    for (const [id, text] of Object.entries(verse)) {
      let note = doc.querySelector(`note[id="${id}"]`);
      // words belong to the first note of a chord
      while (note?.querySelector("chord") && note.previousElementSibling?.tagName === "note")
        note = note.previousElementSibling;
      if (!note) continue;
      const lyric = doc.createElement("lyric");
      lyric.setAttribute("number", String(sung + i + 1));
      const label = doc.createElement("text");
      // a text that begins with a figure would be taken for the number of its verse
      label.textContent = wide(text.replace(/^(?=\d)/, "\u200b"));
      lyric.append(label);
      note.append(lyric);
    }
  }
  return new XMLSerializer().serializeToString(doc);
}

// drawing turns a score's text into a picture.
export const drawing = (xml: string, verses: Verse[] = [], cut?: Cut) =>
  queryOptions({
    queryKey: ["drawing", xml, verses, cut],
    queryFn: async () => (await engraver())(withVerses(xml, verses), verses.length, cut),
    staleTime: Number.POSITIVE_INFINITY,
  });

const svgNS = "http://www.w3.org/2000/svg";

// A Band is a stretch to draw over the notes of one staff.
export type Band = { notes: string[]; text: string; says: string; hue: number; level: number; kind: string };

// band writes coloured stretches with their letters onto a drawn score. Tints
// lie behind the notes, brackets above the staff.
export function drawBands(root: SVGElement, bands: Band[], onSheet = false) {
  const margin = root.querySelector<SVGGElement>("g.page-margin");
  if (!margin) return;
  margin.querySelector("g.bands")?.remove();
  const clear = clearings();
  if (bands.some((b) => b.kind !== "positions"))
    lift(margin, bands.some((b) => b.kind === "chunks") ? 760 : 540, clear);
  const layer = document.createElementNS(svgNS, "g");
  layer.classList.add("bands");
  margin.prepend(layer);
  // numbers leave the left to letters, where there are both
  const aside = bands.some((b) => b.kind === "patterns");
  for (const b of bands) {
    for (const box of spread(margin, b.notes)) {
      layer.append(b.kind === "chunks" ? bracket(b, box, clear(box), onSheet, aside) : tint(b, box, clear(box)));
    }
  }
}

// lift makes room for brackets, letters and tints under tempo and words: they go up
// by so much, and by what stands above the staff there.
function lift(margin: SVGGElement, by: number, clear: (lines: Lines) => number) {
  for (const system of margin.querySelectorAll<SVGGElement>("g.system")) {
    const staff = system.querySelector<SVGGElement>("g.staff");
    const lines = staff && linesOf(system, staff);
    if (!lines) continue;
    const raised = Math.max(0, lines.top - lines.space * 0.4 - clear(lines));
    for (const mark of system.querySelectorAll("g.tempo, g.dir"))
      mark.setAttribute("transform", `translate(0 ${-by - raised})`);
  }
}

// drawVerses writes lines of labels under a staff on which the engraver sings none: one
// of tablature alone.
export function drawVerses(root: SVGElement, verses: Verse[]) {
  const margin = root.querySelector<SVGGElement>("g.page-margin");
  if (!margin || margin.querySelector("g.verse")) return;
  for (const [line, verse] of verses.entries()) {
    for (const [id, text] of Object.entries(verse)) {
      for (const { x1, x2, bottom, space } of spread(margin, [id])) {
        const label = el(
          "text",
          { x: (x1 + x2) / 2, y: bottom + space * (3 + 2.2 * line), "font-size": space * 1.9, "text-anchor": "middle" },
          text,
        );
        label.classList.add("letter", "verse");
        margin.append(label);
      }
    }
  }
}

// Lines are where the lines of a staff stand in a line of music: space is the size that
// signs go by.
type Lines = { system: SVGGElement; top: number; bottom: number; space: number };

// A Box is a stretch on one line of music.
type Box = Lines & { x1: number; x2: number };

function linesOf(system: SVGGElement, staff: SVGGElement): Lines | undefined {
  const lines = [...staff.children].filter((c): c is SVGPathElement => c.tagName === "path").map((c) => c.getBBox());
  if (lines.length === 0) return undefined;
  const top = Math.min(...lines.map((l) => l.y));
  const bottom = Math.max(...lines.map((l) => l.y + l.height));
  return { system, top, bottom, space: spaceOf(top, bottom, new Set(lines.map((l) => Math.round(l.y))).size) };
}

// spread returns the boxes of a stretch, one for each line of music it is on.
function spread(margin: SVGGElement, ids: string[]) {
  const boxes = new Map<Element, Box>();
  for (const id of ids) {
    const note = margin.querySelector<SVGGElement>(`[id="${id}"]`);
    const staff = note?.closest<SVGGElement>("g.staff");
    const system = note?.closest<SVGGElement>("g.system");
    if (!note || !staff || !system) continue;
    const box = (note.querySelector<SVGGElement>(".notehead") ?? note).getBBox();
    const was = boxes.get(system);
    const lines = was ?? linesOf(system, staff);
    if (!lines) continue;
    boxes.set(system, {
      ...lines,
      x1: Math.min(was?.x1 ?? box.x, box.x),
      x2: Math.max(was?.x2 ?? 0, box.x + box.width),
    });
  }
  return boxes.values();
}

// The signs that stand above a staff without being part of it.
const signsAbove = "g.fing, g.slur, g.tie, g.trill, g.mordent, g.turn, g.fermata, g.harm, g.voltaBracket";

// clearings tells of lines where nothing stands above them, looking once for each.
function clearings() {
  const known = new Map<SVGGElement, Map<number, number>>();
  return (lines: Lines) => {
    const tops = known.get(lines.system) ?? new Map<number, number>();
    known.set(lines.system, tops);
    const clear = tops.get(lines.top) ?? above(lines);
    tops.set(lines.top, clear);
    return clear;
  };
}

// above is where nothing of a staff stands any more, all along its line of music.
function above({ system, top, space }: Lines) {
  let y = top;
  let over = top - 24 * space; // where the staff over it ends
  for (const staff of system.querySelectorAll<SVGGElement>("g.staff")) {
    const lines = staff.querySelector("path")?.getBBox();
    if (!lines) continue;
    if (Math.abs(lines.y - top) < space) y = Math.min(y, staff.getBBox().y);
    else if (lines.y < top) over = Math.max(over, linesOf(system, staff)?.bottom ?? lines.y);
  }
  for (const sign of system.querySelectorAll<SVGGElement>(signsAbove)) {
    const box = sign.getBBox();
    const middle = box.y + box.height / 2;
    if (middle < top && middle > (over + top) / 2) y = Math.min(y, box.y); // nearer to this staff than to that
  }
  return y + space;
}

// crop shows only what is drawn of a score, as wide as it is at that size.
export function crop(root: SVGSVGElement, width: number) {
  const inner = root.querySelector("svg") ?? root;
  const margin = root.querySelector<SVGGElement>("g.page-margin");
  if (!margin) return;
  for (const mark of margin.querySelectorAll("g.tempo, g.dir, g.mNum")) mark.remove();
  const all = inner.viewBox.baseVal.width;
  const box = margin.getBBox();
  const shift = margin.transform.baseVal.consolidate()?.matrix ?? { e: 0, f: 0 };
  const pad = 40;
  inner.setAttribute(
    "viewBox",
    `${box.x + shift.e - pad} ${box.y + shift.f - pad} ${box.width + 2 * pad} ${box.height + 2 * pad}`,
  );
  inner.removeAttribute("width");
  inner.removeAttribute("height");
  root.removeAttribute("viewBox");
  root.style.width = `${((box.width + 2 * pad) / all) * width}px`;
  root.style.aspectRatio = `${box.width + 2 * pad} / ${box.height + 2 * pad}`;
}

// spaceOf is the size that signs go by, from a staff's lines. Those of tablature, of
// which each is in pieces, stand wider apart than those of a staff.
const spaceOf = (top: number, bottom: number, lines: number) => ((bottom - top) / (lines - 1)) * (lines > 5 ? 0.6 : 1);

function el(name: string, attributes: Record<string, string | number>, text = "") {
  const out = document.createElementNS(svgNS, name);
  for (const [key, value] of Object.entries(attributes)) out.setAttribute(key, String(value));
  out.textContent = text;
  return out;
}

function tint(b: Band, { x1, x2, top, bottom, space }: Box, clear: number) {
  const g = document.createElementNS(svgNS, "g");
  const hue = (b.hue * 137 + (b.kind === "positions" ? 200 : 30)) % 360;
  const over = clear - space * 2.4;
  g.append(
    el("rect", {
      x: x1 - space * 0.4,
      y: top - space,
      width: x2 - x1 + space * 0.8,
      height: bottom - top + space * 2,
      rx: space / 2,
      fill: `hsl(${hue} 70% 60% / 0.2)`,
    }),
  );
  if (b.kind === "positions") return g; // their names stand under the staff
  g.append(
    el("rect", {
      x: x1 - space * 0.4,
      y: over + space * 0.25,
      width: x2 - x1 + space * 0.8,
      height: space * 0.28,
      fill: `hsl(${hue} 60% 35%)`,
    }),
    label(b, x1 - space * 0.3, over, space, `hsl(${hue} 70% 26%)`),
  );
  return g;
}

function bracket(b: Band, { x1, x2, space }: Box, clear: number, onSheet: boolean, aside: boolean) {
  const g = document.createElementNS(svgNS, "g");
  const y = clear - space * (1.9 + b.level * (onSheet ? 2.9 : 2.1));
  const colour = b.level === 0 ? (b.hue ? "#17695a" : "#6a45a8") : "#14262c";
  g.append(
    el("path", {
      d: `M${x1 - space * 0.3} ${y + space * 0.6}V${y}H${x2 + space * 0.3}V${y + space * 0.6}`,
      fill: "none",
      stroke: colour,
      "stroke-width": space * 0.2,
    }),
  );
  if (onSheet) {
    // where the bracket is too short for its words, its number stands alone
    const long = b.text.length * space * 1.05 > x2 - x1 + space * 2.6;
    const text = long ? (b.text.split(" ")[0] ?? "") : b.text;
    g.append(label({ ...b, text }, x1, y - space * 0.25, space * 1.45, colour));
  } else if (b.text) {
    const number = label(b, aside ? Math.max(x2, x1 + space * 2.8) : x1, y - space * 0.25, space, colour);
    if (aside) number.setAttribute("text-anchor", "end");
    g.append(number);
  }
  return g;
}

function label(b: Band, x: number, y: number, space: number, fill: string) {
  const t = el("text", { x, y, "font-size": space * 1.5, fill }, b.text);
  t.classList.add("letter");
  t.append(el("title", {}, b.says));
  return t;
}
