import { symlinkSync } from "node:fs";
import { join } from "node:path";
import { afterEach, describe, expect, it } from "vitest";
import { bundled } from "../support/bundled.js";
import { executingServer, type ExecutingServer } from "../support/executingServer.js";
import { packageRoot } from "../support/packageRoot.js";
import { TemporaryProject } from "../support/temporaryProject.js";

const schema = `
scalar Instant
scalar Long
scalar Money
scalar Upload
enum Status { AFLOAT "In port" DOCKED }
interface Boat { id: ID! name: String! status: Status! since: Instant tons: Long! }
type Sail implements Boat { id: ID! name: String! status: Status! since: Instant tons: Long! mast: Float! }
type Tug implements Boat { id: ID! name: String! status: Status! since: Instant tons: Long! fee: Money }
union Found = Sail | Tug
input Filter { after: Instant atLeast: Long fee: Money status: Status }
type Query { boats(filter: Filter): [Boat!]! found: Found }
type Mutation { photo(id: ID!, file: Upload!, more: [Upload!]): Boolean! }
`;
const queries = `
query Boats($filter: Filter) { boats(filter: $filter) { id ...Line ... on Tug { fee } } }
query Look { found { ... on Sail { mast } ... on Tug { fee } } }
mutation Photo($id: ID!, $file: Upload!, $more: [Upload!]) { photo(id: $id, file: $file, more: $more) }
fragment Line on Boat { name status since ...Weight ... on Sail { mast } }
fragment Weight on Boat { tons }
`;
const config = (settings: string): string => `contracts:
  fleet:
    from: schema.graphql
    queries: [q.graphql]
    scalars: { Instant: { format: date-time }, Long: { format: int64 } }
sdks:
  app:
    language: typescript
    covers: [fleet]
    into: src/sdk
    settings: ${settings}
`;
const money = `export interface Money { readonly cents: number }
export const moneyFrom = (text: string): Money => ({ cents: Number(text) });
export const moneyTo = (money: Money): string => String(money.cents);
`;
const formats = "{ Money: { type: Money, from: src/money.js, decode: moneyFrom, encode: moneyTo } }";

const servers: ExecutingServer[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});
async function started(known?: ReadonlyMap<string, string>): Promise<ExecutingServer> {
  const tug = { __typename: "Tug", id: "2", name: "Bull", status: "DOCKED", since: null, tons: 7, fee: "250" };
  const sail = {
    __typename: "Sail",
    id: "1",
    name: "Elan",
    status: "AFLOAT",
    since: "2026-05-01T08:30:00.000Z",
    tons: 3,
    mast: 12.5,
  };
  const server = await executingServer(schema, { boats: [sail, tug], found: tug, photo: true }, known);
  servers.push(server);
  return server;
}

async function projectWith(settings: string, app: string): Promise<TemporaryProject> {
  const project = new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "schema.graphql": schema,
    "q.graphql": queries,
    "rhema.yaml": config(settings),
    "src/money.ts": money,
    "src/app.ts": app,
  });
  symlinkSync(join(packageRoot, "node_modules"), project.path("node_modules"), "dir");
  const { code, out, err } = await project.run(["generate"]);
  expect(code, out + err).toBe(0);
  return project;
}

describe("GraphQL settings, each tested by an app that compiles, lints and runs", () => {
  it("scalars are decoded and encoded: date-times, 64-bit integers, and a type of the app", async () => {
    const project = await projectWith(
      `{ dates: decoded, int64: bigint, formats: ${formats} }`,
      `import { boats, connectFleet, type BoatsAnswer, type BoatsVariables } from "./sdk/fleet/index.js";
export async function run(baseUrl: string): Promise<unknown> {
  const variables: BoatsVariables = { filter: { after: new Date("2026-01-02T03:04:05Z"), atLeast: 9007199254740993n, fee: { cents: 5 } } };
  const answer: BoatsAnswer = await boats(connectFleet({ baseUrl }), variables);
  return answer.boats.map((boat) => [boat.since?.getTime(), boat.tons, boat.__typename === "Tug" ? boat.fee?.cents : undefined]);
}
`,
    );
    expect(project.compileAndLint()).toEqual([]);
    const server = await started();
    const { run } = await bundled<{ run: (url: string) => Promise<unknown> }>(project, "src/app.ts");
    expect(await run(server.address)).toEqual([
      [Date.parse("2026-05-01T08:30:00Z"), 3n, undefined],
      [undefined, 7n, 250],
    ]);
    expect(server.asked[0]?.variables).toEqual({
      filter: { after: "2026-01-02T03:04:05.000Z", atLeast: 9007199254740992, fee: "5" },
    });
  });

  it("sealed fragments: a component sees its own, unsealing shows them, and predictions are complete", async () => {
    const project = await projectWith(
      "{ fragments: sealed, testing: true }",
      `import { Boats, boats, connectFleet, type BoatsAnswer, type BoatsAnswerBoats, type LinePart } from "./sdk/fleet/index.js";
import { predicted, unseal, type Sealed } from "./sdk/wire/index.js";

type LineProps = Sealed<{ readonly Line: LinePart }>;
function line(props: LineProps): string {
  const part = unseal("Line", props);
  const { tons } = unseal("Weight", part);
  // @ts-expect-error the fragment's own fragments are sealed too
  const hidden: unknown = part.tons;
  return [part.name, part.status, String(tons), part.__typename === "Sail" ? part.mast : "-", hidden].join(" ");
}
export function lines(all: BoatsAnswerBoats[]): string[] {
  // @ts-expect-error what the fragment asks for is not seen outside of it
  void all[0]?.name;
  // @ts-expect-error a fragment that is not spread here cannot be unsealed
  unseal("Weight", all);
  return [...all.map(line), ...unseal("Line", all).map((part) => part.name), String(unseal("Line", null))];
}
export async function run(baseUrl: string): Promise<unknown> {
  const answer = await boats(connectFleet({ baseUrl }), {});
  const soon: BoatsAnswer = predicted(Boats, {
    boats: [{ __typename: "Tug", id: "3", fee: null, name: "Ox", status: "AFLOAT", since: null, tons: 1 }],
  });
  // @ts-expect-error a prediction lacks nothing
  predicted(Boats, { boats: [{ __typename: "Tug", id: "3", fee: null, name: "Ox", status: "AFLOAT", since: null }] });
  // @ts-expect-error and has nothing too much
  predicted(Boats, { boats: [{ __typename: "Tug", id: "3", fee: null, name: "Ox", status: "AFLOAT", since: null, tons: 1, wings: 2 }] });
  return [lines(answer.boats), lines(soon.boats)];
}
`,
    );
    expect(project.compileAndLint()).toEqual([]);
    const { run } = await bundled<{ run: (url: string) => Promise<unknown> }>(project, "src/app.ts");
    expect(await run((await started()).address)).toEqual([
      ["Elan AFLOAT 3 12.5 3", "Bull DOCKED 7 - 7", "Elan", "Bull", "null"],
      ["Ox AFLOAT 1 - 1", "Ox", "null"],
    ]);
  });

  it("sealed fragments with decoded scalars: unsealed values have the declared types", async () => {
    const project = await projectWith(
      `{ fragments: sealed, dates: decoded, int64: bigint, testing: true, formats: ${formats} }`,
      `import { Boats, boats, connectFleet } from "./sdk/fleet/index.js";
import { fakeFleet } from "./sdk/fleet/testing.js";
import { predicted, unseal } from "./sdk/wire/index.js";

export async function run(baseUrl: string): Promise<unknown> {
  const answer = await boats(connectFleet({ baseUrl }), {});
  const real = unseal("Line", answer.boats).map((part): [Date | null, bigint] => [part.since, unseal("Weight", part).tons]);
  const boat = { __typename: "Tug", id: "3", fee: null, name: "Ox", status: "AFLOAT", since: new Date(0), tons: 9n } as const;
  const { connection } = fakeFleet({ boats: { boats: [boat] } });
  const faked = unseal("Line", (await boats(connection, {})).boats).map((part) => [part.since, unseal("Weight", part).tons]);
  const soon = unseal("Line", predicted(Boats, { boats: [boat] }).boats).map((part) => [part.since, unseal("Weight", part).tons]);
  return { real, faked, soon };
}
`,
    );
    expect(project.compileAndLint()).toEqual([]);
    const { run } = await bundled<{ run: (url: string) => Promise<unknown> }>(project, "src/app.ts");
    expect(await run((await started()).address)).toEqual({
      real: [
        [new Date("2026-05-01T08:30:00.000Z"), 3n],
        [null, 7n],
      ],
      faked: [[new Date(0), 9n]],
      soon: [[new Date(0), 9n]],
    });
  });

  it("open unions and enums: values of a later schema must be handled", async () => {
    const project = await projectWith(
      "{ unions: open, choices: open, failures: return }",
      `import { connectFleet, look, type LookAnswer } from "./sdk/fleet/index.js";
export function say(found: NonNullable<LookAnswer["found"]>): string {
  switch (found.__typename) {
    case "Sail":
      return String(found.mast);
    case "Tug":
      return String(found.fee);
    default: {
      const other: string = found.__typename;
      return \`some \${other}\`;
    }
  }
}
// @ts-expect-error without the rest the function ends without an answer
export function forgets(found: NonNullable<LookAnswer["found"]>): string {
  switch (found.__typename) {
    case "Sail":
      return "s";
    case "Tug":
      return "t";
  }
}
export async function run(baseUrl: string): Promise<unknown> {
  const outcome = await look(connectFleet({ baseUrl }));
  return outcome.ok ? outcome.answer.found && say(outcome.answer.found) : outcome.failure.status;
}
`,
    );
    expect(project.compileAndLint()).toEqual([]);
    const { run, say } = await bundled<{ run: (url: string) => Promise<unknown>; say: (found: unknown) => string }>(
      project,
      "src/app.ts",
    );
    expect(await run((await started()).address)).toBe("250");
    expect(say({ __typename: "Ferry" })).toBe("some Ferry");
  });

  it.each(["inline", "sealed"])("parsed documents have the types of the JSON, fragments %s", async (fragments) => {
    const project = new TemporaryProject({
      "package.json": '{ "type": "module" }',
      "schema.graphql":
        "scalar Instant\nscalar Long\ntype Query { log(by: Filter): [Entry!]! plain: Int }\ntype Entry { at: Instant! size: Long note: String next: Entry }\n" +
        "input Filter { since: Instant and: [Filter!] note: String }\n",
      "q/log.graphql":
        "query Log($by: Filter, $from: Instant) { log(by: $by) { ...Line next { at } } }\nfragment Line on Entry { at size note }\nquery Plain { plain }\nquery From($from: Instant!) { log(by: { since: $from }) { note } }\n".replace(
          ", $from: Instant) {",
          ") {",
        ),
      "rhema.yaml":
        'contracts:\n  fleet: { from: schema.graphql, queries: ["q/*.graphql"], scalars: { Instant: { format: date-time }, Long: { format: int64 } } }\n' +
        `sdks:\n  app: { language: typescript, covers: [fleet], into: src/sdk, settings: { parsed: true, dates: decoded, int64: bigint, fragments: ${fragments} } }\n`,
      "src/app.ts": `import type { TypedQueryDocumentNode } from "graphql";
import { From, Log, Plain, log, type LogAnswer, type LogVariables, type PlainAnswer } from "./sdk/fleet/index.js";
${fragments === "sealed" ? 'import { unseal } from "./sdk/wire/index.js";' : ""}
type AnswerOf<T> = T extends TypedQueryDocumentNode<infer Answer, infer _Variables> ? Answer : never;
type VariablesOf<T> = T extends TypedQueryDocumentNode<infer _Answer, infer Variables> ? Variables : never;
export function read(answer: AnswerOf<typeof Log.parsed>, decoded: LogAnswer): [string, Date] {
  const [first] = answer.log;
  const [second] = decoded.log;
  if (!first?.next || !second?.next) throw new Error("none");
  const line = ${fragments === "sealed" ? 'unseal("Line", first)' : "first"};
  const size: number | null = line.size;
  const at: string = line.at;
  const next: string = first.next.at;
  return [at + next + String(size), second.next.at];
}
export const asked: VariablesOf<typeof Log.parsed> = { by: { since: "2026-05-01T00:00:00Z", and: [{ since: "x", and: [{ note: "n" }] }] } };
export const from: VariablesOf<typeof From.parsed> = { from: "2026-05-01T00:00:00Z" };
export const own: LogVariables = { by: { since: new Date(), and: [{ since: new Date() }] } };
export const plain: TypedQueryDocumentNode<PlainAnswer, Readonly<Record<string, never>>> = Plain.parsed;
// @ts-expect-error a date is no text on the wire
export const wrong: VariablesOf<typeof Log.parsed> = { by: { and: [{ since: new Date() }] } };
export { log };
`,
    });
    symlinkSync(join(packageRoot, "node_modules"), project.path("node_modules"));
    expect(await project.run(["generate"])).toMatchObject({ code: 0 });
    expect(project.compileAndLint()).toEqual([]);
    expect(project.compile({ noEmit: true, declaration: true })).toBe("");
    expect(project.read("src/sdk/fleet/calls/plain.ts")).not.toContain("OnWire");
  });

  it("parsed documents, a manifest whose ids are sent, and a copy of the schema", async () => {
    const project = await projectWith(
      "{ parsed: true, manifest: true, schema: true }",
      `import { print, type TypedQueryDocumentNode } from "graphql";
import { Boats, boats, connectFleet, type BoatsAnswer, type BoatsVariables } from "./sdk/fleet/index.js";
const typed: TypedQueryDocumentNode<BoatsAnswer, BoatsVariables> = Boats.parsed;
// @ts-expect-error with the types of its own operation only
export const wrong: TypedQueryDocumentNode<{ boats: number }, BoatsVariables> = Boats.parsed;
export async function run(baseUrl: string): Promise<unknown> {
  await boats(connectFleet({ baseUrl, sends: "id", queriesBy: "GET" }), {});
  return [print(typed) === Boats.text, Boats.id];
}
`,
    );
    expect(project.compileAndLint()).toEqual([]);
    const { operations } = JSON.parse(project.read("src/sdk/fleet/operations.json")) as {
      operations: { name: string; kind: string; hash: string; text: string }[];
    };
    expect(operations.map(({ name, kind }) => [name, kind])).toEqual([
      ["Boats", "query"],
      ["Look", "query"],
      ["Photo", "mutation"],
    ]);
    const server = await started(new Map(operations.map(({ hash, text }) => [hash, text])));
    const { run } = await bundled<{ run: (url: string) => Promise<unknown> }>(project, "src/app.ts");
    expect(await run(server.address)).toEqual([true, operations[0]?.hash]);
    expect(server.asked[0]).toEqual({ documentId: operations[0]?.hash, operationName: "Boats", variables: "{}" });
    expect(project.read("src/sdk/fleet/schema.graphql")).toContain(
      'enum Status {\n  AFLOAT\n\n  """In port"""\n  DOCKED\n}',
    );
  });

  it("files in variables are Blobs in multipart requests", async () => {
    const project = await projectWith(
      "{}",
      `import { connectFleet, photo, type PhotoVariables } from "./sdk/fleet/index.js";
// @ts-expect-error a file is no text
export const wrong: PhotoVariables = { id: "1", file: "text" };
export async function run(): Promise<unknown> {
  let sent: unknown;
  const fetch = async (_url: unknown, init?: RequestInit): Promise<Response> => {
    sent = init?.body;
    return Promise.resolve(new Response('{"data":{"photo":true}}'));
  };
  const file = new Blob(["x"]);
  await photo(connectFleet({ baseUrl: "http://x.test", fetch }), { id: "1", file, more: [file] });
  return sent instanceof FormData ? [...sent.keys()] : sent;
}
`,
    );
    expect(project.compile()).toBe("");
    const { run } = await bundled<{ run: () => Promise<unknown> }>(project, "src/app.ts");
    expect(await run()).toEqual(["operations", "map", "0"]);
  });
});

describe("types: used or all", () => {
  const types = (project: TemporaryProject): string =>
    project.exists("src/sdk/fleet/shapes.ts") ? project.read("src/sdk/fleet/shapes.ts") : "";
  const generated = async (more: string): Promise<TemporaryProject> => {
    const project = new TemporaryProject({
      "package.json": '{ "type": "module" }',
      "schema.graphql": schema,
      "rhema.yaml": `contracts:\n  fleet:\n    from: schema.graphql\n${more}sdks:\n  app: { language: typescript, covers: [fleet], into: src/sdk }\n`,
    });
    expect((await project.run(["generate"])).code).toBe(0);
    return project;
  };

  it("without queries every type of the schema is generated; with queries those in use", async () => {
    const all = await generated("");
    expect(types(all)).toMatch(/export type Boat =\s*\| Sail\s*\| Tug;|export type Boat = Sail \| Tug;/);
    expect(types(all)).toContain('__typename: "Sail";');
    expect(types(all)).toContain("export interface Filter");
    all.write(
      "src/app.ts",
      `import type { Boat, Filter } from "./sdk/fleet/index.js";
export const mast = (boat: Boat): number => (boat.__typename === "Sail" ? boat.mast : 0);
export const none: Filter = { status: "DOCKED", fee: undefined };
`,
    );
    expect(all.compileAndLint()).toEqual([]);
    expect(types(await generated("    queries: [q/*.graphql]\n"))).toBe("");
    expect(types(await generated("    queries: [q/*.graphql]\n    types: all\n"))).toBe(types(all));
  });
});
