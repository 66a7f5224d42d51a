import type { Schemas } from "../api/client";
import { say } from "../words/say";

export type Sound = Schemas["Sound"];

// How a stretch is to be heard.
export type Hearing = {
  from: number; // quarter notes from the start of the piece
  to: number;
  qpm: number;
  speed: number; // of the written tempo
  beat: number; // quarter notes
  beats: number; // counted in before it begins
  staves: number[];
};

// A Stroke is one tone or click, in seconds from the start.
export type Stroke = { at: number; length: number; key: number; ids: string[]; click: boolean; loud?: number };

// strokes lays a stretch out in time: a bar counted in, then its notes, cut at
// the stretch's end.
export function strokes(sounds: Sound[], h: Hearing): { list: Stroke[]; length: number } {
  const second = 60 / (h.qpm * h.speed); // of a quarter note
  const list: Stroke[] = [];
  for (let i = 0; i < h.beats; i++)
    list.push({ at: i * h.beat * second, length: 0.05, key: i === 0 ? 96 : 91, ids: [], click: true });
  const start = h.beats * h.beat;
  for (const s of sounds) {
    if (!h.staves.includes(s.staff) || s.onset < h.from || s.onset >= h.to) continue;
    list.push({
      at: (start + s.onset - h.from) * second,
      length: Math.min(s.length, h.to - s.onset) * second,
      key: s.key,
      ids: [s.id],
      click: false,
    });
  }
  return { list, length: (start + h.to - h.from) * second };
}

export const hertz = (key: number) => 440 * 2 ** ((key - 69) / 12); // ISO 16

// play sounds a stretch with plain tones; it returns how to stop it. onNow gets
// the notes that sound, onEnd is called when it is over.
export function play(
  sounds: Sound[],
  hearing: Hearing,
  loop: boolean,
  onNow: (ids: string[]) => void,
  onEnd: () => void,
): () => void {
  const audio = new AudioContext();
  const timers: number[] = [];
  const ready = 0.06; // time to set all up before the first stroke
  let stopped = false;
  const round = (from: number, counted: boolean) => {
    const { list, length } = strokes(sounds, counted ? hearing : { ...hearing, beats: 0 });
    for (const s of list) tone(audio, s, from + s.at);
    const delay = (at: number) => Math.max(0, (from + at - audio.currentTime) * 1000);
    const moments = new Set(list.filter((s) => !s.click).flatMap((s) => [s.at, s.at + s.length]));
    for (const at of moments) {
      const now = list
        .filter((s) => !s.click && s.at <= at + 1e-6 && at + 1e-6 < s.at + s.length)
        .flatMap((s) => s.ids);
      timers.push(window.setTimeout(() => onNow(now), delay(at)));
    }
    timers.push(
      window.setTimeout(
        () => (loop ? round(from + length, false) : stop()),
        Math.max(0, delay(length) - (loop ? 120 : 0)),
      ),
    );
  };
  const stop = () => {
    if (stopped) return;
    stopped = true;
    for (const t of timers) window.clearTimeout(t);
    void audio.close();
    onNow([]);
    onEnd();
  };
  round(audio.currentTime + ready, true);
  return stop;
}

// tone is one oscillator with a soft beginning and end.
function tone(audio: AudioContext, s: Stroke, at: number) {
  const source = audio.createOscillator();
  const gain = audio.createGain();
  source.type = s.click ? "square" : "triangle";
  source.frequency.value = hertz(s.key);
  const loud = (s.click ? 0.08 : 0.22) * (s.loud ?? 1);
  gain.gain.setValueAtTime(0, at);
  gain.gain.linearRampToValueAtTime(loud, at + 0.012);
  gain.gain.setTargetAtTime(s.click ? 0 : loud * 0.55, at + 0.02, s.click ? 0.01 : 0.25);
  gain.gain.setTargetAtTime(0, at + Math.max(s.length - 0.04, 0.02), 0.015);
  source.connect(gain).connect(audio.destination);
  source.start(at);
  source.stop(at + s.length + 0.1);
}

// The speeds at which a model is heard, of the written tempo.
export const speeds = [
  { name: say("parts.slow"), of: 0.5 },
  { name: say("parts.middle"), of: 0.75 },
  { name: say("parts.fullSpeed"), of: 1 },
];

type Model = Schemas["Model"];

// A Passage is a stretch of a model between two of its notes, in one hand or both.
export type Passage = { fromId: string; toId: string; hand: string };

// hearing lays out how a passage of a model is heard: a bar is counted in, and its
// last notes sound out.
export function hearing(model: Model, p: Passage, speed: number): Hearing {
  const alone = model.hands.indexOf(p.hand);
  const staves = alone < 0 ? model.hands.map((_, i) => i) : [alone]; // both hands are no one's
  const at = (id: string) => model.sounds.find((s) => s.id === id);
  const from = at(p.fromId)?.onset ?? 0;
  const last = at(p.toId)?.onset ?? from;
  const held = model.sounds.filter((s) => staves.includes(s.staff) && s.onset >= from && s.onset <= last);
  const bar = (model.bars[1] ?? 4) - (model.bars[0] ?? 0);
  return {
    from,
    to: Math.max(...held.map((s) => s.onset + s.length)),
    qpm: model.qpm,
    speed,
    beat: model.beat,
    beats: Math.max(2, Math.round(bar / model.beat)),
    staves,
  };
}

// A Pulse is how a metronome clicks: beats in a bar, of which the first stands out, 1 for
// none that does; and even parts of each beat.
export type Pulse = { bpm: number; beats: number; parts: number };

// click is how high the nth click from the first sounds, as a MIDI number.
export function click({ beats, parts }: Pulse, n: number) {
  if (n % parts > 0) return 79;
  return beats > 1 && (n / parts) % beats === 0 ? 96 : 91;
}

// metronome clicks evenly until it is stopped. Clicks are set some ahead of time, so
// that a busy page does not make them late.
export function metronome(pulse: Pulse): () => void {
  const audio = new AudioContext();
  const step = 60 / pulse.bpm / pulse.parts;
  let next = audio.currentTime + 0.06;
  let n = 0;
  const set = () => {
    for (; next < audio.currentTime + 0.3; next += step)
      tone(audio, { at: 0, length: 0.05, key: click(pulse, n++), ids: [], click: true }, next);
  };
  set();
  const timer = window.setInterval(set, 100);
  return () => {
    window.clearInterval(timer);
    void audio.close();
  };
}

// replay sounds a take as it was played: keys as tones, taps as clicks, each as strong as it was. It
// returns how to stop it; onEnd is called when it was heard to its end.
export function replay(strokes: Schemas["Stroke"][], onEnd: () => void): () => void {
  const first = Math.min(...strokes.map((s) => s.at));
  const list = strokes.map((s) => ({
    at: (s.at - first) / 1000,
    length: Math.max((s.length ?? 0) / 1000, 0.12),
    key: s.key || (s.hand === "left" ? 84 : 91),
    ids: [],
    click: !s.key,
    loud: (s.strength ?? 64) / 64,
  }));
  return sounded(list, Math.max(...list.map((s) => s.at + s.length)) + 0.3, onEnd);
}

// sing sounds the tones of a question, at a tempo; it returns how to stop it, and onEnd is called when it
// was heard to its end.
export function sing(tones: Schemas["Tone"][], beat: number, length: number, onEnd: () => void): () => void {
  const second = beat / 1000;
  const list = tones.map((s) => ({
    at: s.onset * second,
    length: Math.max(s.length * second, 0.08),
    key: s.key,
    ids: [],
    click: s.click ?? false,
  }));
  return sounded(list, length * second, onEnd);
}

// sounded sounds strokes; after so many seconds they were heard to their end, though the last may ring on.
function sounded(list: Stroke[], seconds: number, onEnd: () => void): () => void {
  const audio = new AudioContext();
  const begin = audio.currentTime + 0.06;
  for (const s of list) tone(audio, s, begin + s.at);
  const timer = window.setTimeout(
    () => {
      window.setTimeout(() => void audio.close(), 1000);
      onEnd();
    },
    (seconds + 0.06) * 1000,
  );
  return () => {
    window.clearTimeout(timer);
    if (audio.state !== "closed") void audio.close();
  };
}
