import { useSyncExternalStore } from "react";
import { monotonicFactory } from "ulid";
import { say } from "../words/say";
import { answer, api, Problem, queries, type Schemas } from "./client";
import { studioNow } from "./clock";

// Marks wait here until the server has them. Each is an entry of its own in
// the browser's store, so two tabs cannot overwrite each other and a closed
// lid loses nothing; the server takes each id once, so sending twice is safe.

export type Fact = Schemas["Fact"];
export type Body = Schemas["FactBody"];
export type Act = Schemas["Act"];
export type Waiting = { fact: Fact; refused?: string };

const prefix = "ladder.mark.";
const accountKey = "ladder.account";
const sameTouch = 700; // ms in which the same mark again is a double touch

// A Sent mark has reached the server; a view fetched before then lacks it.
export type Sent = { fact: Fact; at: number };

type State = { waiting: Waiting[]; sent: Sent[]; trouble: string };
const sentKey = "ladder.sent"; // of this tab: a page that is loaded anew may know less than was sent
const sentBefore = (): Sent[] => JSON.parse(globalThis.sessionStorage?.getItem(sentKey) ?? "[]");
let state: State = { waiting: [], sent: sentBefore(), trouble: "" };
const listeners = new Set<() => void>();

type Via = (facts: Fact[]) => Promise<unknown>;

let acting = ""; // whose marks this page makes, where that is no account
let via: Via = (facts) => answer(api.POST("/api/facts", { body: { facts } }));

const account = () => acting || (localStorage.getItem(accountKey) ?? "");
const keyOf = (id: string) => `${prefix}${account()}.${id}`;

// setAccount says whose marks are kept and sent from now on, and whether that is somebody else.
export function setAccount(email: string): boolean {
  const another = localStorage.getItem(accountKey) !== email.toLowerCase();
  localStorage.setItem(accountKey, email.toLowerCase());
  refresh();
  void flush();
  return another;
}

// actFor keeps and sends the marks of a page without an account.
export function actFor(name: string, how: Via) {
  acting = name;
  via = how;
  refresh();
  void flush().then(flush); // one may be under way for whoever it was before
}

function refresh(trouble = state.trouble) {
  const mine = keyOf("");
  const waiting: Waiting[] = [];
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i);
    const text = key?.startsWith(mine) ? localStorage.getItem(key) : null;
    if (text) waiting.push(readable(JSON.parse(text)));
  }
  waiting.sort((a, b) => (a.fact.id < b.fact.id ? -1 : 1));
  state = { waiting, sent: state.sent, trouble: waiting.length > 0 ? trouble : "" };
  for (const l of listeners) l();
}

// readable passes over a mark that an older version of this page has left here: its
// words are another's, and it is shown rather than sent.
function readable(w: Waiting): Waiting {
  if (w.fact.body) return w;
  const old = w.fact as Fact & { kind?: string; text?: string };
  const says = say("parts.notedByAnOlderPage", { kind: old.kind, text: old.text });
  return {
    fact: { ...w.fact, body: { kind: "noted", text: says } },
    refused: say("parts.noteItAgain", { says: says.trim() }),
  };
}

const nextID = monotonicFactory(); // facts of one moment keep the order they were told in
let last = { text: "", at: 0 };

let past: { student: string; at: number } | undefined; // the lesson of a day before that is being marked

// markPast dates what is told of a student from a moment on, of a lesson that was not marked
// on its day; no moment ends that.
export function markPast(student: string, from?: string) {
  const at = from ? new Date(from).getTime() : 0;
  past = from ? { student, at: past?.student === student ? Math.max(past.at, at) : at } : undefined;
}

// happened is when what is told now happened: a second after what was told before of a
// lesson of another day.
function happened(student: string): Date {
  if (past?.student !== student) return studioNow();
  past.at += 1000;
  return new Date(past.at);
}

// tell records what happened to a student and sends it. It returns the fact's id.
// The same mark within a double touch is one mark. It happened now, where no other time is
// given.
export function tell(student: string, body: Body, when?: Date): string {
  const text = JSON.stringify([student, { ...body, run: undefined }]); // nobody plays a spot twice in that time
  if (text === last.text && Date.now() - last.at < sameTouch) return "";
  last = { text, at: Date.now() };
  const at = when ?? happened(student);
  const full: Fact = { student, body, id: nextID(at.getTime()), at: at.toISOString() };
  localStorage.setItem(keyOf(full.id), JSON.stringify({ fact: full }));
  refresh();
  void flush();
  return full.id;
}

// act does what a view offers: it tells each of its facts, and returns their ids.
export function act(student: string, bodies: Body[]): string[] {
  return bodies.map((body) => tell(student, body));
}

// may is the act of a code, to be done by a touch; none where it is not offered.
export function may(student: string, acts: Act[] | undefined, code: string) {
  const offer = acts?.find((a) => a.do === code);
  return (
    offer &&
    (() => {
      act(student, offer.tell);
    })
  );
}

// forget drops a mark that the server refused, once it was read.
export function forget(id: string) {
  localStorage.removeItem(keyOf(id));
  refresh();
}

let sending: Promise<void> | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;

// flush sends what waits, in order, and tries again later when it cannot.
export function flush(): Promise<void> {
  sending ??= send().finally(() => {
    sending = undefined;
  });
  return sending;
}

async function send() {
  clearTimeout(timer);
  for (;;) {
    const batch = state.waiting.filter((w) => !w.refused).slice(0, 100);
    if (batch.length === 0) return;
    try {
      await deliver(batch.map((w) => w.fact));
      refresh("");
      await refreshViews(batch.map((w) => w.fact));
    } catch (error) {
      const says = error instanceof Problem ? error.message : String(error);
      refresh(error instanceof Problem && error.status === 401 ? say("parts.signInAgainToSend") : says);
      timer = setTimeout(() => void flush(), 2000);
      return;
    }
  }
}

// deliver sends facts together; when one of several is refused, each is sent
// alone so that only the wrong one stays.
async function deliver(facts: Fact[]): Promise<void> {
  try {
    await via(facts);
    const at = Date.now();
    state.sent = [...state.sent, ...facts.map((fact) => ({ fact, at }))].slice(-200);
    globalThis.sessionStorage?.setItem(sentKey, JSON.stringify(state.sent));
    for (const f of facts) localStorage.removeItem(keyOf(f.id));
  } catch (error) {
    if (!(error instanceof Problem) || ![404, 409, 413, 422].includes(error.status)) throw error;
    if (facts.length > 1) {
      for (const f of facts) await deliver([f]);
    } else if (facts[0]) {
      localStorage.setItem(keyOf(facts[0].id), JSON.stringify({ fact: facts[0], refused: error.message }));
    }
  }
}

// Other tabs show what was told here at once.
const tabs = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("ladder");
tabs?.addEventListener("message", (e: MessageEvent<Fact[]>) => void refetch(e.data));

function refreshViews(facts: Fact[]) {
  tabs?.postMessage(facts);
  return refetch(facts);
}

function refetch(facts: Fact[]) {
  const keys = [["family"], ...[...new Set(facts.map((f) => f.student))].map((id) => ["student", id])];
  if (facts.some((f) => /^(lesson_.*|paused|left|returned|retracted)$/.test(f.body.kind)))
    keys.push(["day"], ["calendar"], ["sheets"]); // they show lessons
  return Promise.all(keys.map((queryKey) => queries.invalidateQueries({ queryKey })));
}

function subscribe(l: () => void) {
  listeners.add(l);
  return () => listeners.delete(l);
}

// useOutbox gives what waits and why.
export const useOutbox = () => useSyncExternalStore(subscribe, () => state);

window.addEventListener("online", () => void flush());
window.addEventListener("storage", () => refresh());
refresh();
void flush();
