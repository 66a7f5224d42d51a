import { afterEach, beforeEach, expect, it, vi } from "vitest";

// Each test loads the clock anew, as a page does.
let clock: typeof import("./clock");
const noon = Date.UTC(2026, 2, 4, 12);

beforeEach(async () => {
  vi.useFakeTimers({ now: noon });
  vi.resetModules();
  clock = await import("./clock");
});
afterEach(() => void vi.useRealTimers());

// read is a question to a server whose clock is ahead, with the time that it
// takes there and back, in ms.
function read(ahead: number, there: number, back: number) {
  const asked = Date.now();
  vi.advanceTimersByTime(there);
  const said = new Date(Date.now() + ahead).toISOString();
  vi.advanceTimersByTime(back);
  clock.readStudioTime(said, asked);
}

const ahead = () => clock.studioNow().getTime() - Date.now();

it("counts by this device until the server says", () => expect(ahead()).toBe(0));

it.each([
  ["an hour slow", 3_600_000],
  ["an hour fast", -3_600_000],
  ["right", 0],
])("does no harm when this device is %s", (_, wrong) => {
  read(wrong, 20, 80);
  expect(ahead()).toBe(wrong - 80);
});

it("is never turned back by an answer that took long", () => {
  read(500, 5, 10);
  const before = clock.studioNow().getTime();
  read(500, 900, 1_500);
  expect(clock.studioNow().getTime()).toBe(before + 2_400);
});

it("gets nearer with an answer that was quick", () => {
  read(500, 100, 2_000);
  expect(ahead()).toBe(-1_500);
  read(500, 3, 4);
  expect(ahead()).toBe(496);
});

it("follows when somebody sets this device's clock", () => {
  read(0, 5, 5);
  vi.setSystemTime(noon + 7_200_000);
  read(-7_200_000, 5, 5);
  expect(Math.abs(ahead() + 7_200_000)).toBeLessThanOrEqual(5);
});
