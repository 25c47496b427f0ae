import { readFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import { expect, it } from "vitest";
import { chromium } from "../support/chromium.js";
import { pageAfter } from "../support/pageAfter.js";
import { bundle } from "../support/bundled.js";
import { listening } from "../support/listening.js";
import { okay } from "../support/smallContract.js";
import { demoProject, restProject, type TemporaryProject } from "../support/temporaryProject.js";

/** What an app does with its SDKs, as data. */
const app = `import { cancelReservation, connectBerths, currentNotices, getBerth, isReserveBerthFailure, listVesselsItems, reserveBerth } from "./sdk/berths/index.js";
import { connectPassages, arrivalsToday } from "./sdk/passages/index.js";
import { renewable, retrying } from "./sdk/wire/index.js";

export async function run(address: string): Promise<unknown> {
  const around = [retrying({ pauseMs: 1 })];
  const harbour = connectBerths({ baseUrl: address + "/berths", auth: { harbourToken: renewable(() => "token") }, around, timeoutMs: 20_000 });
  const told: unknown[] = [];
  const body = { vesselId: "0f4a7c1e-2b3d-4e5f-8a9b-0c1d2e3f4a5b", arrival: "2026-05-01", departure: "2026-05-02" };
  told.push(await getBerth(harbour, { berthId: "N/07 ü" }));
  told.push(await reserveBerth(harbour, { berthId: "N-07", idempotencyKey: "k", body }));
  told.push(await currentNotices(harbour), await cancelReservation(harbour, { reservationId: body.vesselId, reason: "wind & rain" }));
  for await (const vessel of listVesselsItems(harbour)) told.push(vessel);
  try {
    await reserveBerth(harbour, { berthId: "N-07", body: { ...body, vesselId: 7 } as never });
  } catch (error) {
    told.push(isReserveBerthFailure(error) ? [error.status, error.message] : String(error));
  }
  const nowhere = connectBerths({ baseUrl: "http://127.0.0.1:9" });
  told.push(await getBerth(nowhere, { berthId: "x" }).catch((error: unknown) => Object(error).status));
  const gone = new AbortController();
  gone.abort();
  told.push(await getBerth(harbour, { berthId: "x" }, { signal: gone.signal }).catch((error: unknown) => Object(error).status));
  const sea = connectPassages({ baseUrl: address + "/passages" });
  told.push(await arrivalsToday(sea, { day: "2026-05-01" }));
  return told;
}
`;

it.skipIf(chromium === undefined)(
  "an SDK gives the same results in Node and in a browser",
  async () => {
    const project = demoProject();
    project.write("src/both.ts", app);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.compile({ noUnusedLocals: false }, ["src/both.ts"])).toBe("");
    const outfile = bundle(project, "src/both.ts");
    const address = await project.play();
    const { run } = (await import(pathToFileURL(outfile).href)) as { run: (address: string) => Promise<unknown> };
    const inNode = JSON.stringify(await run(address));
    // The second run has what the first run cancelled.
    expect((await fetch(`${address}/.play/forget`, { method: "POST" })).status).toBe(200);
    expect(await toldInBrowser(project, outfile, address)).toEqual(JSON.parse(inNode));
    expect(inNode.length).toBeGreaterThan(500);
  },
  120_000,
);

const guarded = {
  openapi: "3.1.0",
  info: { title: "Guarded", version: "1" },
  paths: {
    "/berth": { get: { operationId: "berth", security: [{ key: [] }], responses: okay({}) } },
    "/harbour": { get: { operationId: "harbour", security: [{ token: [] }], responses: okay({}) } },
    "/photo": {
      post: {
        operationId: "addPhoto",
        requestBody: { required: true, content: { "image/png": {} } },
        responses: okay({ type: "object", properties: { size: { type: "integer" } } }),
      },
    },
  },
  components: {
    securitySchemes: {
      key: { type: "apiKey", in: "header", name: "x-key" },
      token: { type: "http", scheme: "bearer" },
    },
  },
};
const guardedApp = `import { addPhoto, berth, connectApi, harbour } from "./sdk/api/index.js";
import { uploadProgress } from "./sdk/wire/index.js";
export async function run(address: string): Promise<unknown> {
  const sent: number[] = [];
  const around = [uploadProgress((progress) => { sent.push(progress.sent); })];
  const api = connectApi({ baseUrl: address, auth: { key: "k", token: "t" }, around });
  const failed = await berth(api).catch((error: unknown) => String(Object(error).message));
  const followed = await harbour(api);
  const body = new Uint8Array(300_000);
  return [failed, followed, await addPhoto(api, { body }), sent.at(-1)];
}
`;

it.skipIf(chromium === undefined)(
  "a browser sends no key to another host after a redirect, and reports the progress of an upload",
  async () => {
    const project = restProject(guarded, { "src/guarded.ts": guardedApp });
    expect((await project.run(["generate"])).code).toBe(0);
    expect(
      project.compile({ noUnusedLocals: false, target: "ES2022", lib: ["ES2022", "DOM"] }, ["src/guarded.ts"]),
    ).toBe("");
    const arrived: [string | undefined, unknown, unknown][] = [];
    const open = {
      "access-control-allow-origin": "*",
      "access-control-allow-headers": "authorization, x-key, content-type",
      "content-type": "application/json",
    };
    const elsewhere = await listening((request, response) => {
      if (request.method !== "OPTIONS")
        arrived.push([request.url, request.headers.authorization, request.headers["x-key"]]);
      response.writeHead(200, open).end('{"from":"elsewhere"}');
    });
    const address = await listening((request, response) => {
      let size = 0;
      request.on("data", (part: Buffer) => (size += part.length));
      request.on("end", () => {
        if (request.method === "OPTIONS") response.writeHead(204, open).end();
        else if (request.url === "/photo") response.writeHead(200, open).end(JSON.stringify({ size }));
        else response.writeHead(302, { ...open, location: `${elsewhere}/moved` }).end();
      });
    });
    expect(await toldInBrowser(project, bundle(project, "src/guarded.ts"), address)).toEqual([
      "api.berth: the server redirects, the browser hides the target, and a key would be sent there",
      { from: "elsewhere" },
      { size: 300_000 },
      300_000,
    ]);
    expect(arrived).toEqual([["/moved", undefined, undefined]]);
  },
  120_000,
);

/** The result of the function `run` of a bundled module in a browser, as data. */
async function toldInBrowser(project: TemporaryProject, outfile: string, address: string): Promise<unknown> {
  const page = `<!doctype html><meta charset="utf-8"><pre id="told">running</pre><script type="module">
    import { run } from "/both.mjs";
    const told = document.getElementById("told");
    run(${JSON.stringify(address)}).then((value) => { told.textContent = JSON.stringify(value); }, (error) => { told.textContent = JSON.stringify("failed " + error); });
  </script>`;
  const at = await listening((request, response) => {
    const isScript = request.url === "/both.mjs";
    response.writeHead(200, { "content-type": isScript ? "text/javascript" : "text/html" });
    response.end(isScript ? readFileSync(outfile) : page);
  });
  return JSON.parse(await pageAfter(`${at}/`, project.path("profile"))) as unknown;
}
