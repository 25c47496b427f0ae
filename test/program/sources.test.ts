import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { contractWith } from "../support/smallContract.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const configured = (from: string, more = ""): string =>
  `contracts:\n  api:\n    from: ${from}\n${more}sdks:\n  app: { language: typescript, covers: [api], into: src/sdk }\n`;
const module = { "package.json": '{ "type": "module" }' };
const sound = JSON.stringify(contractWith({ Berth: { type: "object", properties: { id: { type: "string" } } } }));
const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});

/** A host that responds to each path from a table, and the requests it received. */
async function host(
  answers: Record<string, (response: ServerResponse) => void>,
): Promise<{ address: string; seen: IncomingMessage[] }> {
  const seen: IncomingMessage[] = [];
  const server = createServer((request, response) => {
    seen.push(request);
    const answer = answers[request.url ?? ""];
    if (answer) answer(response);
    else response.writeHead(404).end("gone");
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { address: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`, seen };
}

const shapes = "src/sdk/api/shapes.ts";

describe("a contract in several files", () => {
  const files = {
    ...module,
    "rhema.yaml": configured("api/openapi.yaml"),
    "api/openapi.yaml": `openapi: 3.1.0
info: { title: Several, version: "1" }
paths:
  /vessels/{id}: { $ref: paths/vessel.yaml }
  /lost: { get: { responses: { "200": { description: "", content: { application/json: { schema: { $ref: none.yaml } } } } } } }
  /out: { get: { responses: { "200": { description: "", content: { application/json: { schema: { $ref: ../../outside.yaml } } } } } } }
components: { schemas: { Vessel: { $ref: schemas/vessel.yaml } } }
`,
    "api/paths/vessel.yaml": `get:
  operationId: getVessel
  parameters: [{ $ref: "../schemas/common.json#/parameters/id" }]
  responses: { "200": { description: "", content: { application/json: { schema: { $ref: ../schemas/vessel.yaml } } } } }
`,
    "api/schemas/vessel.yaml": `description: A vessel.
type: object
properties: { tender: { $ref: vessel.yaml }, length: { $ref: "common.json#metres" } }
`,
    "api/schemas/common.json": JSON.stringify({
      parameters: { id: { name: "id", in: "path", required: true, schema: { type: "string" } } },
      definitions: { Metres: { $anchor: "metres", type: "number", description: "In metres." } },
    }),
  };

  it("is read through all of them, and references out of the project are skipped", async () => {
    const project = new TemporaryProject(files);
    const { code, out, err } = await project.run(["generate"]);
    expect([code, err]).toEqual([0, ""]);
    expect(out).toContain("api/openapi.yaml and 3 more");
    const said = out.replace(/\s+/g, " ");
    expect(said).toContain(
      "GET /lost contract.reference api/openapi.yaml:5:105 The reference `api/none.yaml` refers to a document that does not exist.",
    );
    expect(said).toContain("The reference `../outside.yaml` refers to a document that is outside the project.");
    expect(project.read(shapes)).toContain("/** A vessel. */\nexport interface Vessel {\n  tender?: Vessel;");
    expect(project.compile()).toBe("");
    expect((await project.run(["generate"])).out).toContain("already up to date");
    expect((await project.run(["check"])).code).toBe(0);
    expect((await project.run(["impact"])).out).toContain("nothing changed");
  });

  it("is generated again if a file that it refers to changes, appears, or becomes invalid", async () => {
    const project = new TemporaryProject(files);
    await project.run(["generate"]);
    project.write("api/schemas/vessel.yaml", files["api/schemas/vessel.yaml"].replace("tender", "dinghy"));
    expect((await project.run(["check"])).code).toBe(1);
    expect((await project.run(["generate"])).out).toContain("2 changes, none breaks");
    expect(project.read(shapes)).toContain("dinghy?: Vessel;");
    project.write("api/none.yaml", "type: string\n");
    expect((await project.run(["generate"])).out).not.toContain("/lost");
    project.write("api/none.yaml", "type: [string\n");
    const broken = await project.run(["generate"]);
    expect(broken.err).toContain("warning contract.syntax  api/none.yaml:2:1");
    expect(broken.out).toContain("GET /lost");
  });

  it("can be set as a folder; several contracts in one are refused", async () => {
    const project = new TemporaryProject({ ...files, "rhema.yaml": configured("api") });
    expect((await project.run(["generate"])).code).toBe(0);
    project.write("api/other.yaml", "openapi: 3.1.0\ninfo: { title: O, version: '1' }\npaths: {}\n");
    const { code, err } = await project.run(["generate"]);
    expect([code, err.split("\n")[0]]).toEqual([3, expect.stringContaining("contract.several")]);
  });
});

describe("a contract from a URL", () => {
  it("is fetched once, and read from its copy from then on", async () => {
    const { address, seen } = await host({ "/api.json": (response) => response.end(sound) });
    const project = new TemporaryProject({
      ...module,
      "rhema.yaml": configured(`${address}/api.json`, '    headers: { authorization: "Bearer ${TOKEN}" }\n'),
    });
    expect((await project.run(["generate"])).err).toContain("`TOKEN`, which is not set");
    const first = await project.run(["generate"], { TOKEN: "tide" });
    expect([first.code, first.err]).toEqual([0, ""]);
    expect(seen.map((each) => each.headers.authorization)).toEqual(["Bearer tide"]);
    expect(JSON.stringify(project.tree("."))).not.toContain("tide");
    expect((await project.run(["generate"])).out).toContain("already up to date");
    expect((await project.run(["check"])).code).toBe(0);
    expect(seen).toHaveLength(1);
    await project.run(["generate", "--fresh"], { TOKEN: "tide" });
    expect(seen).toHaveLength(2);
  });

  it.each<[string, (response: ServerResponse) => void, string]>([
    ["401", (response) => response.writeHead(401).end(), "refuses access (401)"],
    ["404", (response) => response.writeHead(404).end(), "responds with 404"],
    ["a web page", (response) => response.end("<!DOCTYPE html><title>Hello</title>"), "is a web page"],
    ["nothing", (response) => response.end(), "is empty"],
    [
      "elsewhere",
      (response) => response.writeHead(302, { location: "http://evil.test/x" }).end(),
      "redirects to `evil.test`",
    ],
    [
      "half an answer",
      (response) => {
        response.writeHead(200, { "content-length": "100" });
        response.write("openapi");
        setTimeout(() => response.destroy(), 20);
      },
      "was disconnected",
    ],
  ])("that responds %s ends with 3 and a fix", async (_name, answer, words) => {
    const { address } = await host({ "/api.json": answer });
    const project = new TemporaryProject({ ...module, "rhema.yaml": configured(`${address}/api.json`) });
    const { code, err } = await project.run(["generate"]);
    expect(code).toBe(3);
    expect(err).toContain("error contract.fetch  rhema.yaml:3:11");
    expect(err).toContain(words);
  });

  it("may refer only to allowed hosts, without the headers", async () => {
    const other = await host({
      "/common.yaml": (response) => response.end("Berth: { type: object, properties: { far: { type: string } } }\n"),
    });
    const schema = { $ref: `${other.address}/common.yaml#/Berth` };
    const own = await host({ "/api.json": (response) => response.end(JSON.stringify(contractWith({ Far: schema }))) });
    const headers = "    headers: { x-secret: '${TOKEN}' }\n";
    const project = new TemporaryProject({ ...module, "rhema.yaml": configured(`${own.address}/api.json`, headers) });
    const refused = await project.run(["generate"], { TOKEN: "tide" });
    expect(refused.out.replace(/\s+/g, " ")).toContain("is on a host that `hosts` does not allow");
    expect(other.seen).toHaveLength(0);
    project.write(
      "rhema.yaml",
      configured(`${own.address}/api.json`, `${headers}    hosts: ["${other.address.slice("http://".length)}"]\n`),
    );
    const allowed = await project.run(["generate"], { TOKEN: "tide" });
    expect(allowed.out).not.toContain("set aside");
    expect(other.seen.map((each) => each.headers["x-secret"])).toEqual([undefined]);
    expect(project.read(shapes)).toContain("far?: string;");
    expect((await project.run(["check"])).code).toBe(0);
    expect(other.seen).toHaveLength(1);
  });
});

describe("an invalid URL", () => {
  it.each([
    ["https://", 3, "is not a URL that can be fetched"],
    ["ftp://ostrel.example/y.json", 3, "is not a URL that can be fetched"],
    ["https://${NO_SUCH_HOST}/api.json", 2, "`NO_SUCH_HOST`, which is not set"],
  ])("%s is reported, never as an internal error", async (address, code, words) => {
    const ran = await new TemporaryProject({ ...module, "rhema.yaml": configured(`"${address}"`) }).run(["generate"]);
    expect(ran.code).toBe(code);
    expect(ran.err.replace(/\s+/g, " ")).toContain(words);
  });
});

describe("a contract from a command", () => {
  it("is stored as a copy; a command that fails is reported", async () => {
    const project = new TemporaryProject({
      ...module,
      "print.cjs": `console.log(${JSON.stringify(sound)})`,
      "rhema.yaml": configured('{ run: "node print.cjs" }'),
    });
    expect((await project.run(["generate"])).code).toBe(0);
    expect(project.exists(".rhema/copies/api/output.json")).toBe(true);
    const failing = new TemporaryProject({
      ...module,
      "rhema.yaml": configured('{ run: "echo no tide >&2; exit 4" }'),
    });
    const { code, err } = await failing.run(["generate"]);
    expect(code).toBe(3);
    expect(err).toContain("failed (4): no tide");
  });
});

describe("--strict", () => {
  it("exits with 1 if a part was skipped, also if nothing changed", async () => {
    const broken = JSON.stringify(
      contractWith({ Good: { type: "string" }, Bad: { $ref: "#/components/schemas/None" } }),
    );
    const project = new TemporaryProject({ ...module, "api.json": broken, "rhema.yaml": configured("api.json") });
    expect((await project.run(["generate"])).code).toBe(0);
    expect((await project.run(["generate", "--strict"])).code).toBe(1);
    project.write("api.json", sound);
    expect((await project.run(["generate", "--strict"])).code).toBe(0);
  });
});
