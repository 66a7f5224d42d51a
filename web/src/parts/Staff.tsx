import { renderAbc } from "abcjs";
import { useEffect, useRef } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";

type Props = { notes: Schemas["DrawnNotes"]; now?: string[]; title: string; wide?: boolean };

// How wide a line of music is laid out, in pixels: on a phone held upright, of a card, on a page.
const width = { phone: 340, card: 150, page: 720 };
const none: string[] = [];

const texts = ["vocal", "annotation", "gchord", "tempo", "voice", "repeat", "measure"];

// Staff draws notes by a light engraver, with a bracket over some of them; those that sound stand
// out.
export function Staff({ notes, now = none, title, wide = false }: Props) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (box.current) draw(box.current, notes, title, notes.card ? width.card : wide ? width.page : width.phone);
  }, [notes, title, wide]);
  useEffect(() => {
    for (const note of box.current?.querySelectorAll<SVGGElement>("[data-ids]") ?? [])
      note.classList.toggle(
        "sounding",
        note.dataset.ids?.split(" ").some((id) => now.includes(id)),
      );
  }, [now]);
  return <div ref={box} role="img" aria-label={say("parts.theNotesOf", { title })} className="light" />;
}

function draw(box: HTMLElement, notes: Schemas["DrawnNotes"], title: string, staffwidth: number) {
  renderAbc(box, notes.abc, {
    add_classes: true,
    ariaLabel: say("parts.theNotesOf", { title }),
    staffwidth,
    responsive: notes.card ? undefined : "resize",
    paddingleft: 4,
    paddingright: 4,
    paddingtop: 8,
    paddingbottom: 4,
    format: {
      ...Object.fromEntries(texts.map((font) => [`${font}font`, "Commissioner Variable 12"])),
      stretchlast: 0.5,
    },
  });
  for (const [v, voice] of notes.voices.entries()) {
    const drawn = box.querySelectorAll<SVGGElement>(`.abcjs-note.abcjs-v${v}`);
    for (const [i, ids] of voice.chords.entries()) {
      const note = drawn[i];
      if (note) note.dataset.ids = ids;
    }
  }
  bracket(box, notes);
}

// bracket draws a bracket over the notes that are played, on each line of music that has
// some of them.
function bracket(box: HTMLElement, { bracket: ids, says }: Schemas["DrawnNotes"]) {
  const svg = box.querySelector("svg");
  const chosen = [...box.querySelectorAll<SVGGElement>("[data-ids]")].filter((n) =>
    n.dataset.ids?.split(" ").some((id) => ids.includes(id)),
  );
  if (!svg || chosen.length === 0) return;
  const lines = new Map<Element, SVGGElement[]>();
  for (const note of chosen) {
    const line = note.closest(".abcjs-staff-wrapper");
    if (line) lines.set(line, [...(lines.get(line) ?? []), note]);
  }
  let first = true;
  for (const list of lines.values()) {
    const boxes = list.map((n) => n.getBBox());
    const [x1, x2] = [Math.min(...boxes.map((b) => b.x)), Math.max(...boxes.map((b) => b.x + b.width))];
    const y = Math.min(...boxes.map((b) => b.y)) - 4;
    const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
    path.setAttribute("d", `M${x1 - 2} ${y + 5}V${y}H${x2 + 2}V${y + 5}`);
    path.setAttribute("class", "bracket");
    svg.append(path);
    if (first && says) {
      const text = document.createElementNS("http://www.w3.org/2000/svg", "text");
      text.setAttribute("x", String(x1));
      text.setAttribute("y", String(y - 4));
      text.setAttribute("class", "mark");
      text.textContent = says;
      svg.append(text);
    }
    first = false;
  }
}
