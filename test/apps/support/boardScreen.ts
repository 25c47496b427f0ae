import { expect } from "vitest";
import type { OpenedApp } from "./openedApp.js";

/** The common parts of every framework's screen: connections, and the text of a state. */
export const boardModule = `import { cachedBerths } from "./sdk/berths/cached.js";
import { connectBerths, type BerthPage, type ListBerthsFailure, type GetBerthFailure, type Berth, type ChangeBerthArgs } from "./sdk/berths/index.js";
import { cachedPassages } from "./sdk/passages/cached.js";
import { connectPassages, type LiveArrivalsAnswer, type LiveArrivalsFailure } from "./sdk/passages/index.js";
import type { Shown, ShownPages } from "./sdk/views/live.js";

declare const address: string;
/** The override for the next requests. */
export const override: { now?: string } = {};
const headers = (): Record<string, string> => (override.now === undefined ? {} : { "rhema-play": override.now });
const harbour = connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: "made-up" }, headers });
export const berths = cachedBerths(harbour);
export const passages = cachedPassages(connectPassages({ baseUrl: address + "/passages" }));

export function overrideWith(text: string | undefined): void {
  if (text === undefined) delete override.now;
  else override.now = text;
}

export function listText(list: Shown<BerthPage, ListBerthsFailure>): string {
  switch (list.state) {
    case "loading":
      return list.asking ? "loading" : "nothing to ask";
    case "failed":
      return "failed: " + String(list.failure.status) + (list.failure.status === 401 ? " " + list.failure.body.title : "");
    case "ready":
      return list.answer.items.map(({ id, status, note }) => [id, status, note ?? "-"].join(" ")).join(", ") +
        (list.asking ? " (refreshing)" : "") + (list.failure ? " (not refreshed: " + String(list.failure.status) + ")" : "");
  }
}

export function oneText(one: Shown<Berth, GetBerthFailure>): string {
  if (one.state === "loading") return one.asking ? "loading" : "none chosen";
  return one.state === "ready" ? one.answer.id : one.failure.status === 404 ? "404 " + one.failure.body.title : "failed";
}

export function pagesText({ state, answer = [], hasMore }: ShownPages<BerthPage, ListBerthsFailure>): string {
  const ids = answer.flatMap(({ items }) => items.map(({ id }) => id));
  return state + " " + String(ids.length) + " " + String(new Set(ids).size) + (hasMore ? " and more" : " in all");
}

export function arrivalsText(arrivals: Shown<number, LiveArrivalsFailure>): string {
  return arrivals.state === "ready" ? String(arrivals.answer) + " arrivals" : arrivals.state;
}

export function counted(before: number | undefined, _: LiveArrivalsAnswer): number {
  return (before ?? 0) + 1;
}

/** The list with the expected change. */
export function noted(page: BerthPage, { berthId, body }: ChangeBerthArgs): BerthPage {
  return { ...page, items: page.items.map((berth) => (berth.id === berthId ? { ...berth, note: body.note ?? "" } : berth)) };
}
`;

/** Checks everything that bindings promise, with a screen that shows its state as text. */
export async function walkThroughBoard({ page, says, click, textOf, requests }: OpenedApp): Promise<void> {
  const override = async (text?: string): Promise<void> => {
    await page.evaluate(`window.overrideWith(${text === undefined ? "undefined" : JSON.stringify(text)})`);
  };
  const listed = async (): Promise<string[]> =>
    (await requests()).filter((each) => /berths(\?status=\w+)?( given up)?$/.test(each));

  // Sent once, whatever a framework does to find errors.
  await says("list", /^\S+ \w+ .*, \S+/);
  expect(await listed()).toEqual(["GET /berths/berths"]);
  expect(await textOf("one")).toBe("none chosen");
  await says("arrivals", /^[2-9] arrivals/);

  await says("pages", "ready 2 2 and more");
  await click("more");
  await says("pages", "ready 4 4");

  // The old response stays, with the failure of the latest request.
  const before = await textOf("list");
  await override("status=401, delay=60");
  await click("again");
  await says("list", `${before} (refreshing)`);
  await says("list", `${before} (not refreshed: 401)`);
  await override();
  await click("again");
  await says("list", new RegExp(`^${before.replace(/[^\w ,-]/g, ".")}$`));

  await click("missing");
  await says("one", /^404 \S/);

  // A prediction is shown at once, taken back when the change fails, and stays until the server has made the change.
  await override("status=422, delay=200");
  await click("change-it");
  await says("list", "freshly painted");
  await says("change", "failed 422");
  expect(await textOf("list")).toBe(before);
  await override();
  await click("change-it");
  await says("change", "done");
  await says("list", "freshly painted");

  // Other arguments: the pending request is cancelled, and a late response is not shown.
  await override("delay=5000");
  await click("again");
  await says("list", "(refreshing)");
  await override();
  await click("free");
  await says("list", /^\S+ free (?!.*(reserved|occupied|closed))/);
  expect((await listed()).at(-2)).toBe("GET /berths/berths given up");

  // A call that is removed from the screen cancels its request.
  await override("delay=5000");
  await click("again");
  await says("list", "(refreshing)");
  await click("leave");
  await says("gone", "gone");
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect((await listed()).at(-1)).toMatch(/status=free given up$/);
  expect((await requests()).filter((each) => each.includes("/passages")).at(-1)).toMatch(/given up$/);
}
