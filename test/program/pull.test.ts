import { createServer, type Server } from "node:http";
import { ageText } from "../../src/workspace/sources/copyAge.js";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { oneAnswer } from "../support/oneAnswer.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

interface Origin {
  text: string;
  etag: string | undefined;
  /** The requests at whose connection it hangs up. */
  resets: number;
  readonly asked: (string | undefined)[];
  readonly address: string;
}

/** A server of one document with its version. */
async function origin(text: string, etag?: string): Promise<Origin> {
  const state = { text, etag, resets: 0, asked: [] as (string | undefined)[], address: "" };
  const server = createServer((request, response) => {
    const condition = request.headers["if-none-match"];
    state.asked.push(condition);
    if (state.resets > 0) {
      state.resets--;
      request.socket.destroy();
      return;
    }
    if (state.etag !== undefined) response.setHeader("etag", state.etag);
    if (condition !== undefined && condition === state.etag) response.writeHead(304).end();
    else response.end(state.text);
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return Object.assign(state, {
    address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}/berths.json`,
  });
}

const text = { type: "string" };
const project = (address: string) =>
  new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "rhema.yaml": `contracts:\n  berths: { from: ${address} }\nsdks:\n  board: { language: typescript, covers: [berths], into: src/sdk }\n`,
    "src/app.ts":
      'import { connectBerths, getBerth } from "./sdk/berths/index.js";\nexport const note = async () => (await getBerth(connectBerths({ baseUrl: "/" }))).note;\n',
  });

describe("pull", () => {
  it("asks a server with versions only for a newer one, and for all of it if a copy was edited", async () => {
    const server = await origin(oneAnswer({ id: text, note: text }), '"1"');
    const app = project(server.address);
    expect((await app.run(["generate"])).code).toBe(0);
    const copy = Object.keys(app.tree(".rhema/copies")).find((path) => path.endsWith("berths.json")) ?? "";
    expect((await app.run(["pull"])).out).toMatch(/^pull: nothing changed/);
    expect(server.asked).toEqual([undefined, '"1"']);
    app.write(`.rhema/copies/${copy}`, "{}");
    expect((await app.run(["pull"])).out).toMatch(/changed, saved/);
    expect(server.asked[2]).toBeUndefined();
    server.etag = '"2"';
    expect((await app.run(["pull"])).out).toMatch(/^pull: nothing changed/);
    expect((await app.run(["pull"])).out).toMatch(/^pull: nothing changed/);
    expect(server.asked.slice(3)).toEqual(['"1"', '"2"']);
  });

  it("asks once more if a server closes the connection, but not again", async () => {
    const server = await origin(oneAnswer({ id: text }));
    const app = project(server.address);
    server.resets = 1;
    expect((await app.run(["pull"])).code).toBe(0);
    expect(server.asked).toHaveLength(2);
    server.resets = 9;
    expect((await app.run(["pull"])).err).toContain("cannot be reached");
    expect(server.resets).toBe(7);
  });

  it("shows what a newer contract breaks, with locations, and stores one value per line", async () => {
    const server = await origin(oneAnswer({ id: text, note: text }));
    const app = project(server.address);
    await app.run(["generate"]);
    const copies = () =>
      Object.entries(app.tree(".rhema/copies"))
        .map(([, copy]) => copy)
        .join("");
    const before = copies().split("\n");
    expect(before.length).toBeGreaterThan(20);
    server.text = oneAnswer({ id: text });
    const checked = await app.run(["pull", "--check"]);
    expect([checked.code, checked.out.includes("pull: 1 contract changed")]).toEqual([1, true]);
    expect(copies().split("\n")).toEqual(before);
    const pulled = await app.run(["pull"]);
    expect(pulled.code).toBe(0);
    expect(pulled.out).toMatch(/^impact: 1 of 1 change can break this project/);
    expect(pulled.out).toContain("src/app.ts:2:");
    expect(pulled.out.indexOf("impact:")).toBeLessThan(
      pulled.out.indexOf("pull: 1 contract updated; next: rhema generate"),
    );
    const after = copies().split("\n");
    // Only the comma before the removed part.
    expect(after.filter((line) => !before.includes(line)).map((line) => line.trim())).toEqual(['"id"']);
    const data = JSON.parse((await app.run(["pull", "--json"])).out) as { contracts: unknown };
    expect(data.contracts).toMatchObject([{ name: "berths", state: "same" }]);
  });
});

describe("impact on a remote contract", () => {
  it("says which copy it compared and how old it is; --fresh fetches and stores nothing", async () => {
    const server = await origin(oneAnswer({ id: text, note: text }));
    const app = project(server.address);
    expect((await app.run(["generate"])).code).toBe(0);
    const asked = server.asked.length;
    server.text = oneAnswer({ id: text });
    const { code, out } = await app.run(["impact"]);
    expect([code, server.asked.length]).toEqual([0, asked]);
    expect(out).toMatch(
      /berths: compared with its copy, which is just fetched; `rhema impact --fresh` fetches it\n {2}\.rhema\/copies\/berths\//,
    );
    const before = app.tree(".rhema");
    const fresh = await app.run(["impact", "--fresh"]);
    expect([fresh.code, fresh.out]).toEqual([1, expect.stringContaining("removed from responses")]);
    expect(fresh.out).not.toContain("compared with its copy");
    expect(app.tree(".rhema")).toEqual(before);
    const { copies } = JSON.parse((await app.run(["impact", "--json"])).out) as { copies: { contract: string }[] };
    expect(copies.map((each) => each.contract)).toEqual(["berths"]);
    server.resets = 9;
    const gone = await app.run(["impact", "--fresh"]);
    expect([gone.code, gone.err]).toEqual([0, expect.stringContaining("warning contract.fetch")]);
  });

  it("reads the server's contract together with local files, and new references", async () => {
    const asked: string[] = [];
    const berth = (properties: object) => JSON.stringify({ Berth: { type: "object", properties } });
    const documents: Record<string, string> = { "/shapes.json": berth({ size: text }) };
    const server = createServer((request, response) => {
      asked.push(request.url ?? "");
      const found = documents[request.url ?? ""];
      response.writeHead(found === undefined ? 404 : 200).end(found);
    });
    servers.push(server);
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    const at = `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
    const app = project("main.json");
    app.write("rhema.yaml", app.read("rhema.yaml").replace("from: main.json", `from: [main.json, ${at}/shapes.json]`));
    app.write("main.json", oneAnswer({ berth: { $ref: `${at}/shapes.json#/Berth` } }));
    app.write("src/app.ts", "export {};\n");
    expect((await app.run(["generate"])).code).toBe(0);
    documents["/shapes.json"] = berth({
      size: { $ref: `${at}/size.json` },
    });
    documents["/size.json"] = '{ "type": "integer" }';
    asked.length = 0;
    const { out } = await app.run(["impact", "--fresh", "--all"]);
    expect(asked).toEqual(["/shapes.json", "/size.json"]);
    expect(out).toMatch(/size` was a string and is an integer\./);
  });

  it.each([
    [5 * 86_400_000 + 9, "5 days old"],
    [86_400_000, "1 day old"],
    [7_200_000, "2 hours old"],
    [61_000, "1 minute old"],
    [2_000, "just fetched"],
  ])("an age of %i ms is %s", (passed, said) => {
    expect(ageText(new Date(1_000_000), new Date(1_000_000 + passed))).toBe(said);
  });
});
