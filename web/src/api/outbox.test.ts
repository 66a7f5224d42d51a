import { beforeEach, describe, expect, it, vi } from "vitest";

// The outbox is one for the page, so each test loads it anew on a fresh store
// and a server that the test plays.
type Answer = { status: number; detail?: string } | "unreachable";

const kept = new Map<string, string>();
let answers: ((ids: string[]) => Answer) | undefined;
let sent: string[][] = [];

function store(): Storage {
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (k) => kept.get(k) ?? null,
    setItem: (k, v) => void kept.set(k, v),
    removeItem: (k) => void kept.delete(k),
    clear: () => kept.clear(),
  };
}

vi.stubGlobal("localStorage", store());
vi.stubGlobal("window", { addEventListener: () => undefined });
vi.stubGlobal(
  "fetch",
  vi.fn(async (request: Request) => {
    const body = (await request.clone().json()) as { facts: { id: string }[] };
    const ids = body.facts.map((f) => f.id);
    const a = answers?.(ids) ?? { status: 204 };
    if (a === "unreachable") throw new TypeError("no connection");
    sent.push(ids);
    if (a.status === 204) return new Response(null, { status: 204 });
    return new Response(JSON.stringify({ detail: a.detail }), {
      status: a.status,
      headers: { "Content-Type": "application/problem+json" },
    });
  }),
);

async function load() {
  vi.resetModules();
  vi.doMock("./client", async (original) => {
    const real = await original<typeof import("./client")>();
    const { default: createClient } = await import("openapi-fetch");
    return { ...real, api: createClient({ baseUrl: "http://studio.example" }) };
  });
  const box = await import("./outbox");
  box.setAccount("Ottilie@ferryhouse.example");
  return box;
}

const mark = (text: string) => ["emil", { kind: "noted" as const, text }] as const;
const entries = () => [...kept.entries()].filter(([k]) => k.startsWith("ladder.mark."));

beforeEach(() => {
  kept.clear();
  sent = [];
  answers = undefined;
});

describe("marks that wait", () => {
  it("are kept before they are sent, and dropped when the server has them", async () => {
    const box = await load();
    box.tell(...mark("one"));
    expect(entries()).toHaveLength(1);
    await box.flush();
    expect(sent).toHaveLength(1);
    expect(entries()).toHaveLength(0);
  });

  it("are one mark within a double touch", async () => {
    const box = await load();
    expect(box.tell(...mark("same"))).not.toBe("");
    expect(box.tell(...mark("same"))).toBe("");
    expect(box.tell(...mark("other"))).not.toBe("");
    const run = (n: number) => box.tell("emil", { kind: "spot_drilled", rung: "lamp", spot: "s", run: n });
    expect(run(4)).not.toBe("");
    expect(run(5)).toBe("");
    await box.flush();
    await box.flush();
    expect(sent.flat()).toHaveLength(3);
  });

  it("stay while nothing can be reached, and go in order when it can", async () => {
    const box = await load();
    answers = () => "unreachable";
    const first = box.tell(...mark("first"));
    await box.flush();
    const second = box.tell(...mark("second"));
    await box.flush();
    expect(entries()).toHaveLength(2);
    answers = undefined;
    await box.flush();
    expect(sent.flat()).toEqual([first, second].sort());
    expect(entries()).toHaveLength(0);
  });

  it("survive the page: a new one sends them", async () => {
    const box = await load();
    answers = () => "unreachable";
    const id = box.tell(...mark("kept"));
    await box.flush();
    answers = undefined;
    const later = await load();
    await later.flush();
    expect(sent.flat()).toContain(id);
    expect(entries()).toHaveLength(0);
  });

  it("that are refused stay with the reason, and the others go", async () => {
    const box = await load();
    answers = () => "unreachable";
    const bad = box.tell(...mark("bad"));
    const good = box.tell(...mark("good"));
    await box.flush();
    answers = (ids) => (ids.includes(bad) ? { status: 422, detail: "It cannot be kept." } : { status: 204 });
    await box.flush();
    expect(sent.at(-1)).toEqual([good]);
    expect(entries()).toHaveLength(1);
    expect(JSON.parse(entries()[0]?.[1] ?? "{}").refused).toBe("It cannot be kept.");
    box.forget(bad);
    expect(entries()).toHaveLength(0);
  });

  it("wait for a sign-in, and for a database that is away", async () => {
    const box = await load();
    for (const status of [401, 503, 507]) {
      answers = () => ({ status, detail: "not now" });
      box.tell(...mark(`at ${status}`));
      await box.flush();
    }
    expect(entries()).toHaveLength(3);
    expect(entries().every(([, v]) => !JSON.parse(v).refused)).toBe(true);
  });

  it("belong to the account that made them", async () => {
    const box = await load();
    answers = () => "unreachable";
    box.tell(...mark("hers"));
    await box.flush();
    answers = undefined;
    box.setAccount("someone@else.example");
    await box.flush();
    expect(sent).toHaveLength(0);
    expect(entries()).toHaveLength(1);
  });
});
