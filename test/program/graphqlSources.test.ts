import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { buildSchema, graphqlSync, introspectionFromSchema } from "graphql";
import { afterEach, describe, expect, it } from "vitest";
import { TemporaryProject } from "../support/temporaryProject.js";

const schema = `
"""What the harbour answers."""
schema { query: Ask mutation: Act }
"""Any moment, in UTC."""
scalar Instant @specifiedBy(url: "https://harbour.test/instant")
enum Status { "On the water" AFLOAT DOCKED @deprecated(reason: "Say \\"berthed\\".") }
interface Boat { id: ID! }
type Sail implements Boat { id: ID! "How high" mast(unit: String = "m", of: Range = { low: 1.5, tags: ["a"] }): Float since: Instant }
type Tug implements Boat { id: ID! power: Int! status: Status! @deprecated }
union Found = Sail | Tug
input Range { low: Float = 0 high: Float @deprecated(reason: "No bound.") tags: [String!] }
input Pick @oneOf { id: ID name: String }
type Ask { boat(by: Pick!): Boat boats(status: Status = AFLOAT, range: Range): [[Boat!]!]! found: [Found!]! }
type Act { dock(id: ID!): Status }
`;
const queries = `
query Boats($status: Status, $range: Range) { boats(status: $status, range: $range) { id ... on Sail { mast since } ... on Tug { power status } } }
query One($by: Pick!) { boat(by: $by) { id } }
mutation Dock($id: ID!) { dock(id: $id) }
`;
const configured = (from: string, more = ""): string =>
  `contracts:\n  fleet:\n    from: ${from}\n    queries: [q/*.graphql]\n${more}sdks:\n  app: { language: typescript, covers: [fleet], into: src/sdk, settings: { schema: true } }\n`;
const base = { "package.json": '{ "type": "module" }', "q/all.graphql": queries };

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) {
    server.closeAllConnections();
    server.close();
  }
});

async function listening(
  answer: (request: IncomingMessage, response: ServerResponse, body: string) => void,
): Promise<string> {
  const server = createServer((request, response) => {
    let body = "";
    request.setEncoding("utf8").on("data", (part: string) => (body += part));
    request.on("end", () => {
      answer(request, response, body);
    });
  });
  servers.push(server);
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`;
}

/** Executes requests; `refuses` lists words that an older server does not know. */
async function endpoint(refuses = /$^/, token?: string): Promise<string> {
  const built = buildSchema(schema);
  return listening((request, response, body) => {
    response.setHeader("content-type", "application/json");
    if (token !== undefined && request.headers.authorization !== `Bearer ${token}`) {
      response.writeHead(401).end("{}");
      return;
    }
    const { query } = JSON.parse(body || "{}") as { query?: string };
    const word = query === undefined ? "a query" : refuses.exec(query)?.[0];
    if (query === undefined || word !== undefined)
      response.writeHead(400).end(JSON.stringify({ errors: [{ message: `Cannot understand ${String(word)}.` }] }));
    else response.end(JSON.stringify(graphqlSync({ schema: built, source: query })));
  });
}

/** The SDK without the parts that show where the contract came from. */
async function sdkOf(files: Record<string, string>, env: Record<string, string> = {}): Promise<Record<string, string>> {
  const project = new TemporaryProject({ ...base, ...files });
  const ran = await project.run(["generate"], env);
  expect(ran.code, ran.out + ran.err).toBe(0);
  expect(ran.err).toMatch(
    /^warning query\.deprecated .*\n {2}The field `Tug\.status` is deprecated\.\n.*\n.*\n.*\n\s*$/,
  );
  return project.tree("src/sdk");
}

describe("a schema from every kind of source gives the same SDK", () => {
  const usual = (): Promise<Record<string, string>> =>
    sdkOf({ "rhema.yaml": configured("fleet.graphql"), "fleet.graphql": schema });
  const introspected = introspectionFromSchema(buildSchema(schema), {
    oneOf: true,
    inputValueDeprecation: true,
    specifiedByUrl: true,
    schemaDescription: true,
  });

  it("from many files with extensions, by a glob and by a folder", async () => {
    const expected = await usual();
    const files = {
      "s/a.graphql": schema.replace("id: ID! power: Int!", "id: ID!").replace("type Act { dock(id: ID!): Status }", ""),
      "s/b.graphql": "extend type Tug { power: Int! } type Act",
      "s/deep/c.graphql": "extend type Act { dock(id: ID!): Status }",
    };
    const [glob, folder] = [{ "rhema.yaml": configured('"s/**/*.graphql"') }, { "rhema.yaml": configured("s") }];
    const found = await sdkOf({ ...files, ...glob });
    expect(Object.keys(found)).toEqual(Object.keys(expected));
    expect(found["fleet/calls/one.ts"]).toBe(expected["fleet/calls/one.ts"]);
    expect(await sdkOf({ ...files, ...folder })).toEqual(found);
  });

  it("from an introspection result, with and without `data`", async () => {
    const expected = await usual();
    const bare = { "rhema.yaml": configured("fleet.json"), "fleet.json": JSON.stringify(introspected) };
    expect(await sdkOf(bare)).toEqual(expected);
    const wrapped = {
      "rhema.yaml": configured("fleet.json"),
      "fleet.json": JSON.stringify({ data: introspected }, null, 2),
    };
    expect(await sdkOf(wrapped)).toEqual(expected);
  });

  it("from a module, tagged or only assigned, without running it", async () => {
    const expected = await usual();
    const text = schema.replaceAll("\\", "\\\\");
    const tagged = `import { gql } from "x";\nthrow new Error("run");\nexport const typeDefs = gql\`${text}\`;\n`;
    expect(await sdkOf({ "rhema.yaml": configured("fleet.ts"), "fleet.ts": tagged })).toEqual(expected);
    const assigned = `const answer = 42 / 2; const other = \`type \${answer}\`;\nmodule.exports = \`${text}\`;\n`;
    expect(await sdkOf({ "rhema.yaml": configured("fleet.cjs"), "fleet.cjs": assigned })).toEqual(expected);
  });

  it("from a command, as a schema and as an introspection result", async () => {
    const expected = await usual();
    const print = `{ run: "node print.mjs" }`;
    for (const text of [schema, JSON.stringify({ data: introspected })]) {
      const files = { "print.mjs": `process.stdout.write(${JSON.stringify(text)})`, "rhema.yaml": configured(print) };
      expect(await sdkOf(files)).toEqual(expected);
    }
  });

  it("from a live endpoint, with headers from the environment, and from one with older introspection", async () => {
    const expected = await usual();
    const address = await endpoint(/$^/, "t0ken");
    const headers = '    headers: { authorization: "Bearer ${HARBOUR_TOKEN}" }\n';
    const live = { "rhema.yaml": configured(`${address}/graphql`, headers) };
    expect(await sdkOf(live, { HARBOUR_TOKEN: "t0ken" })).toEqual(expected);
    const older = await endpoint(/isOneOf/);
    const plain = await sdkOf({ "rhema.yaml": configured(`${older}/api`) });
    expect(plain["fleet/calls/boats.ts"]).toBe(expected["fleet/calls/boats.ts"]);
    const oldest = await endpoint(
      /isOneOf|specifiedByURL|isRepeatable|includeDeprecated: true\)\s*\{\s*\.\.\.InputValue/,
    );
    const old = await sdkOf({ "rhema.yaml": configured(`${oldest}/graphql`) });
    expect(old["fleet/calls/dock.ts"]).toBe(expected["fleet/calls/dock.ts"]);
  });
});

describe("an endpoint without a schema is reported, with a fix", () => {
  const cases: [string, (request: IncomingMessage, response: ServerResponse) => void, RegExp][] = [
    [
      "introspection is switched off",
      (_, response) => response.end('{"errors":[{"message":"GraphQL introspection is not allowed by this server."}]}'),
      /does not allow introspection: GraphQL introspection is not allowed[\s\S]*as a file/,
    ],
    [
      "the address is wrong",
      (_, response) => response.writeHead(404).end("no"),
      /responds with 404 to an introspection query[\s\S]*\/graphql/,
    ],
    [
      "it is a web page",
      (_, response) => response.setHeader("content-type", "text/html").end("<!doctype html><title>hello</title>"),
      /is a web page, not a GraphQL endpoint[\s\S]*\/graphql/,
    ],
    ["it wants a credential", (_, response) => response.writeHead(401).end(), /refuses access \(401\)[\s\S]*`headers`/],
    [
      "it leads elsewhere",
      (_, response) => response.writeHead(308, { location: "https://elsewhere.test/graphql" }).end(),
      /redirects to `elsewhere.test`[\s\S]*`hosts`/,
    ],
    ["it takes too long", () => undefined, /did not respond within 0.4 s/],
    ["it answers something else", (_, response) => response.end('"hello"'), /does not respond like a GraphQL server/],
    [
      "it refuses for a reason of its own",
      (_, response) => response.end('{"errors":[{"message":"Quota\\u001b[31m exceeded"}]}'),
      /refuses introspection: Quota \[31m exceeded/,
    ],
  ];
  it.each(cases)("%s", async (_, answer, expected) => {
    const address = await listening(answer);
    const project = new TemporaryProject({ ...base, "rhema.yaml": configured(`${address}/graphql`) });
    const { code, err } = await project.run(["generate"], { RHEMA_WAIT_MS: "400" });
    expect(err.replace(/\s+/g, " ")).toMatch(expected);
    expect(err).toContain("rhema.yaml:3");
    expect(code).toBe(3);
  });

  it("because the server is not running", async () => {
    const address = await listening(() => undefined);
    await new Promise((resolve) => servers.pop()?.close(resolve));
    const project = new TemporaryProject({ ...base, "rhema.yaml": configured(`${address}/graphql`) });
    const { code, err } = await project.run(["generate"]);
    expect(err.replace(/\s+/g, " ")).toMatch(/no server listens at 127.0.0.1:\d+\. [\s\S]*Start the server/);
    expect(code).toBe(3);
  });
});

describe("pull", () => {
  it("stores the copy as a schema, says whether it changed, and uses the old one if it fails", async () => {
    let current = buildSchema(schema);
    let isDown = false;
    const address = await listening((_, response, body) => {
      if (isDown) response.writeHead(503).end();
      else
        response.end(
          JSON.stringify(graphqlSync({ schema: current, source: (JSON.parse(body) as { query: string }).query })),
        );
    });
    const project = new TemporaryProject({ ...base, "rhema.yaml": configured(`${address}/graphql`) });
    const first = await project.run(["pull"]);
    expect(first.out).toMatch(/^pull: 1 contract updated/);
    const copy = /\.rhema\/copies\/\S+\.graphql/.exec(first.out)?.[0] ?? "";
    expect(project.read(copy)).toContain('"""How high"""\n  mast(');
    expect((await project.run(["pull"])).out).toMatch(/^pull: nothing changed/);
    current = buildSchema(schema.replace("power: Int!", "power: Int! draught: Float"));
    const checked = await project.run(["pull", "--check"]);
    expect([checked.code, checked.out.includes("1 contract changed")]).toEqual([1, true]);
    expect(project.read(copy)).not.toContain("draught");
    expect((await project.run(["pull", "fleet"])).out).toMatch(/changed, saved/);
    expect((await project.run(["pull", "--check"])).code).toBe(0);
    isDown = true;
    const failed = await project.run(["pull"]);
    expect(failed.code).toBe(1);
    expect(failed.out).toMatch(/^pull: 1 contract not updated/);
    expect(failed.err).toContain("responds with 503");
    expect(project.read(copy)).toContain("draught");
    expect((await project.run(["generate"])).code).toBe(0);
  });
});
