import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { afterEach, describe, expect, it } from "vitest";
import { packageRoot } from "../support/packageRoot.js";
import { TemporaryProject } from "../support/temporaryProject.js";

/** Secrets as people have them: each in another place, none of which may come out anywhere. */
const planted = {
  HARBOUR_TOKEN: "tok_9f86d081884c7d659a2feaa0c55ad015",
  QUERY_KEY: "key-a3bf4f1b2b0b822cd15d6c15b0f00a08",
  COOKIE: "sess-60303ae22b998861bce3b28f33eec1be",
};

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

async function origin(): Promise<string> {
  const contract = readFileSync(join(packageRoot, "demo/contracts/v1/berths.yaml"), "utf8");
  const server = createServer((request, response) => {
    const isLetIn = request.headers.authorization === `Bearer ${planted.HARBOUR_TOKEN}`;
    if (!isLetIn) response.writeHead(401).end();
    else if (request.url?.startsWith("/docs/") === true) response.setHeader("etag", '"1"').end(contract);
    else response.writeHead(403, { "content-type": "application/json" }).end('{"title":"No"}');
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
}

describe("secrets", () => {
  it("are nowhere in what any command writes or prints", async () => {
    const address = await origin();
    const project = new TemporaryProject({
      "package.json": '{ "name": "board", "type": "module", "scripts": { "build": "tsc" } }',
      "src/app.ts": "export {};\n",
    });
    const said: string[] = [];
    const run = async (...args: string[]): Promise<number | null> => {
      // What is noted for debugging is no exception.
      const { code, out, err } = await project.run(args, { ...planted, RHEMA_DEBUG: "1" });
      said.push(out, err);
      return code;
    };
    const noted = (): boolean =>
      said.some((text) => text.includes("fetched http") && text.includes("/docs/berths.yaml"));
    const header = "authorization: Bearer ${HARBOUR_TOKEN}";
    expect(await run("init", "--from", `${address}/docs/berths.yaml?key=\${QUERY_KEY}`, "--header", header)).toBe(0);
    for (const args of [
      ["generate"],
      ["generate", "--json", "--fresh"],
      ["generate", "--files"],
      ["pull"],
      ["pull", "--json", "--check"],
      ["check", "--json"],
      ["impact", "--json"],
      ["outline", "--json"],
      ["try", "listBerths", "--base-url", address, "--header", header],
      ["try", "listBerths", "--base-url", address, "--header", header, "--json"],
      ["try", "listBerths", "--base-url", address, "--header", "cookie: session=${COOKIE}"],
      ["try", "listBerths", "--code", "samples"],
    ])
      await run(...args);
    // The origin refuses: even then nothing of what was sent is told.
    const refused = await project.run(["pull"], { ...planted, HARBOUR_TOKEN: planted.COOKIE });
    said.push(refused.out, refused.err);
    expect(refused.err).toContain("refuses access");

    // What runs on: the stand-in with its page, and the observer.
    for (const args of [
      ["play", "--port", "0"],
      ["observe", address, "--port", "0"],
    ]) {
      const running = project.start(["--json", ...args], planted);
      const [base = ""] = /http:\/\/127\.0\.0\.1:\d+/.exec(await running.says(/http:\/\/127\.0\.0\.1:\d+/)) ?? [];
      const path = args[0] === "play" ? "/berths/berths" : "/berths";
      await fetch(`${base}${path}?key=${planted.QUERY_KEY}&access_token=${planted.QUERY_KEY}`, {
        headers: {
          authorization: `Bearer ${planted.HARBOUR_TOKEN}`,
          cookie: `session=${planted.COOKIE}`,
          "x-api-key": planted.QUERY_KEY,
        },
      });
      await fetch(`${base}${path}/N-07/reservations`, {
        method: "POST",
        headers: { "content-type": "application/json", authorization: planted.HARBOUR_TOKEN },
        body: JSON.stringify({ password: planted.COOKIE, token: planted.HARBOUR_TOKEN }),
      });
      if (args[0] === "play") said.push(await (await fetch(`${base}/.play/state`)).text());
      await running.ends();
      said.push(running.out, running.err);
    }

    expect(noted()).toBe(true);
    const written = Object.entries(project.tree("."))
      .map(([path, text]) => `${path}\n${text}`)
      .join("\n");
    for (const [name, secret] of Object.entries(planted)) {
      expect([name, said.join("\n").includes(secret)]).toEqual([name, false]);
      expect([name, written.includes(secret)]).toEqual([name, false]);
    }
    expect(written).toContain("${HARBOUR_TOKEN}");
  });
});
