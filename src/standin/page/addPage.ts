import { randomBytes } from "node:crypto";
import type { Hono } from "hono";
import { streamSSE } from "hono/streaming";
import { isData } from "../../core/text/parseData.js";
import { visibleJson } from "../../core/text/visible.js";
import type { Journal, JournalEntry } from "../journal.js";
import type { PlayedContract } from "../playedContract.js";
import { readStandingOverride, type Overrides } from "../override.js";
import { pageText } from "./pageText.js";
import { sampleRequests } from "./sampleRequests.js";
import { isOwnName } from "../ownName.js";

/** The objects that the page shows and controls. */
export interface PageSubject {
  readonly journal: Journal;
  readonly overrides: Overrides;
  readonly contracts: () => readonly PlayedContract[];
  readonly forget: () => void;
  readonly seed: number;
}

const stillEveryMs = 15_000;

/** Adds the page at the root, and its requests below `/.play`. */
export function addPage(app: Hono, subject: PageSubject): void {
  const { journal, overrides, contracts, forget, seed } = subject;
  app.get("/", (context) => {
    if (context.req.header("accept")?.includes("text/html") !== true)
      return context.json({
        playing: contracts().map(({ contract }) => ({
          contract: contract.name,
          protocol: contract.protocol,
          at: `/${contract.name}`,
        })),
      });
    const nonce = randomBytes(16).toString("base64");
    context.header(
      "content-security-policy",
      `default-src 'none'; style-src 'nonce-${nonce}'; script-src 'nonce-${nonce}'; connect-src 'self'; img-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'`,
    );
    return context.html(pageText(nonce));
  });
  app.use("/.play/*", async (context, next) => {
    if (isFromElsewhere((name) => context.req.header(name)))
      return context.json({ title: "This is for the stand-in's own page" }, 403);
    return next();
  });
  app.get("/.play/state", async (context) => {
    const state = {
      contracts: await Promise.all(
        contracts().map(async (played) => ({
          name: played.contract.name,
          title: played.contract.protocol === "rest" ? played.contract.title : "",
          protocol: played.contract.protocol,
          operations: sampleRequests(played, seed, (await played.samples?.()) ?? new Map()),
        })),
      ),
      calls: journal.entries.map(shown),
      overrides: Object.fromEntries(overrides.entries()),
    };
    return context.body(visibleJson(state), 200, { "content-type": "application/json" });
  });
  app.get("/.play/events", (context) =>
    streamSSE(context, async (stream) => {
      const waiting: (JournalEntry | undefined)[] = [];
      let wake = (): void => undefined;
      const end = journal.listen((entry) => {
        waiting.push(entry);
        wake();
      });
      stream.onAbort(() => {
        end();
        wake();
      });
      while (!stream.aborted) {
        for (const entry of waiting.splice(0))
          await stream.writeSSE(entry ? { data: visibleJson(shown(entry)) } : { event: "reload", data: "" });
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, stillEveryMs);
          wake = () => {
            clearTimeout(timer);
            resolve();
          };
        });
        if (waiting.length === 0) await stream.write(": still here\n\n");
      }
      end();
    }),
  );
  app.post("/.play/override", async (context) => {
    const body: unknown = await context.req.json().catch(() => undefined);
    const { operation, override } = isData(body) ? body : {};
    if (typeof operation !== "string" || typeof override !== "string")
      return context.json({ title: "An override has an operation and a text" }, 400);
    const read = readStandingOverride(override);
    if (typeof read === "string") return context.json({ title: read }, 400);
    overrides.set(operation, read.override);
    return context.json({ overrides: Object.fromEntries(overrides.entries()) });
  });
  app.post("/.play/forget", (context) => {
    forget();
    return context.json({ forgotten: true });
  });
}

/**
 * Another site's page must neither read an app's requests here nor control the server. The same is true for another
 * name of this machine.
 */
function isFromElsewhere(header: (name: string) => string | undefined): boolean {
  const host = header("host") ?? "";
  const origin = header("origin");
  const site = header("sec-fetch-site");
  if (origin !== undefined && origin !== `http://${host}`) return true;
  if (site !== undefined && site !== "same-origin" && site !== "none") return true;
  return !isOwnName(host);
}

function shown(entry: JournalEntry) {
  return { ...entry, request: entry.request(), answer: entry.answer() };
}
