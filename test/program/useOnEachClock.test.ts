import { describe, expect, it } from "vitest";
import { TemporaryProject } from "../support/temporaryProject.js";

const text = { type: "string" };
const kind = (...values: string[]) => ({ type: "string", enum: values });
const named = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const record = (properties: object, needed = Object.keys(properties)) => ({
  type: "object",
  required: needed,
  properties,
});
const json = (schema: object) => ({ content: { "application/json": { schema } } });

/** One call that sends an order and gets one, and one that lists orders page by page. */
function contract(
  schemas: object,
  { listed = "listOrders", more = {} }: { listed?: string; more?: object } = {},
): string {
  return JSON.stringify({
    openapi: "3.1.0",
    info: { title: "Orders", version: "1" },
    paths: {
      "/orders": {
        post: {
          operationId: "order",
          requestBody: { required: true, ...json(named("Order")) },
          responses: { 200: { description: "", ...json(named("Answer")) } },
        },
        get: {
          operationId: listed,
          parameters: [{ name: "cursor", in: "query", schema: text }],
          responses: {
            200: {
              description: "",
              ...json(record({ items: { type: "array", items: named("Answer") }, nextCursor: text }, ["items"])),
            },
          },
          ...more,
        },
      },
    },
    components: { schemas: { Order: record({ berth: text }), Answer: record({ id: text }), ...schemas } },
  });
}

interface Told {
  readonly code: string;
  readonly use: string;
  readonly verdict: { readonly code: string; readonly apps: string };
}

/** The report about each change in use, as "rule: code, apps". */
async function told(before: string, after: string, source: string, settings: object = {}): Promise<string[]> {
  const project = new TemporaryProject({
    "package.json": '{ "type": "module" }',
    "tsconfig.json": JSON.stringify({
      compilerOptions: { strict: true, target: "ES2022", module: "ESNext", moduleResolution: "Bundler", noEmit: true },
      include: ["src"],
    }),
    "orders.json": before,
    "rhema.json": JSON.stringify({
      contracts: { orders: { from: "orders.json", pages: { listOrders: { by: "cursor", parameter: "cursor" } } } },
      sdks: { app: { language: "typescript", covers: ["orders"], into: "src/sdk", settings } },
    }),
    "src/app.ts": `import * as sdk from "./sdk/orders/index.js";\nexport const api = sdk.connectOrders({ baseUrl: "/" });\n${source}\n`,
  });
  expect(await project.run(["generate"])).toMatchObject({ code: 0 });
  project.write("orders.json", after);
  const { out, err } = await project.run(["impact", "--json"]);
  expect(err).toBe("");
  return (JSON.parse(out) as { contracts: { changes: Told[] }[] }).contracts
    .flatMap(({ changes }) => changes)
    .filter(({ use }) => use === "used")
    .map(({ code, verdict }) => `${code}: ${verdict.code}, ${verdict.apps}`);
}

const sends = 'export const sent = await sdk.order(api, { body: { berth: "n" } });';

describe("a response that the SDK decodes whole", () => {
  const [before, after] = [{ id: text, note: text }, { id: text }].map((fields) =>
    contract({ Answer: record(fields) }),
  );
  it("fails every call of released apps, whatever they read of it", async () => {
    expect(await told(before!, after!, sends, { verify: "answers" })).toEqual([
      "answer.field.gone: compatible, breaking",
    ]);
    expect(await told(before!, after!, `${sends}\nexport const note = sent.note;`, { verify: "answers" })).toEqual([
      "answer.field.gone: breaking, breaking",
    ]);
  });

  it("is in use only where it is read, if the SDK does not decode it", async () => {
    expect(await told(before!, after!, sends)).toEqual([]);
  });

  it("also if one value becomes another one", async () => {
    const dated = (type: object) => contract({ Answer: record({ id: text, at: type }) });
    const [day, number] = [dated({ type: "string", format: "date-time" }), dated({ type: "integer" })];
    expect(await told(day, number, sends, { dates: "decoded" })).toEqual(["answer.type.changed: compatible, breaking"]);
    expect(await told(day, number, sends)).toEqual([]);
  });
});

describe("values that an app only builds or compares", () => {
  const state = (...values: string[]) =>
    contract({
      State: kind(...values),
      Order: record({ state: named("State") }),
      Answer: record({ state: named("State") }),
    });

  it("a response built by hand does not compile, and breaks no released app", async () => {
    const size = (...items: string[]) =>
      contract({
        Answer: record({
          size: { type: "array", prefixItems: items.map((type) => ({ type })), minItems: items.length, items: false },
        }),
      });
    const built = "export const built: Awaited<ReturnType<typeof sdk.order>> = { size: [1, 2] };";
    expect(await told(size("number", "number"), size("number", "number", "string"), built)).toEqual([
      "answer.type.changed: breaking, compatible",
    ]);
  });

  it("a value that is compared is not sent", async () => {
    const compares = "export const is = (answer: sdk.Answer) => answer.state === 'lost';";
    expect(await told(state("open", "lost"), state("open"), compares)).toEqual([
      "answer.choice.gone: breaking, compatible",
      "ask.choice.gone: breaking, compatible",
    ]);
  });

  it("another value that is sent does not count", async () => {
    const sent = (value: string) => `export const sent = sdk.order(api, { body: { state: ${value} } });`;
    const change = (source: string) => told(state("open", "shut", "lost"), state("open", "shut"), source);
    expect(await change(sent('"open"'))).toEqual([]);
    expect(await change(`declare const is: boolean;\n${sent('is ? "open" : "shut"')}`)).toEqual([]);
    expect(await change(sent('"lost"'))).toContain("ask.choice.gone: breaking, breaking");
    expect(await change(`declare const state: sdk.State;\n${sent("state")}`)).toContain(
      "ask.choice.gone: compatible, breaking",
    );
  });
});

describe("a body with several media types", () => {
  const pay = (...members: object[]) => contract({ Order: record({ pay: named("Pay") }), Pay: { anyOf: members } });
  const card = record({ card: text });
  const account = (needed: string[]) => record({ account: text, bank: text }, needed);
  const sendsCard = 'export const sent = sdk.order(api, { body: { pay: { card: "1" } } });';
  const sendsAccount = 'export const sent = sdk.order(api, { body: { pay: { account: "1" } } });';

  it("a change to one media type affects the code that sends it", async () => {
    const [before, after] = [pay(card, account(["account"])), pay(card, account(["account", "bank"]))];
    expect(await told(before, after, sendsCard)).toEqual([]);
    expect(await told(before, after, sendsAccount)).toEqual(["ask.field.now-required: breaking, breaking"]);
  });

  it("a removed media type breaks only source that sends it", async () => {
    const [before, after] = [pay(card, account(["account"])), pay(card)];
    expect(await told(before, after, sendsCard)).toEqual(["ask.member.gone: compatible, breaking"]);
    expect(await told(before, after, sendsAccount)).toEqual(["ask.member.gone: breaking, breaking"]);
  });
});

describe("an operation that is called in another way", () => {
  const pages = "for await (const each of sdk.listOrdersItems(api)) console.log(each.id);\nexport {};";
  it.each([
    ["is gone", contract({}, { listed: "listAll" }), "operation.renamed: breaking, compatible"],
    [
      "asks for more",
      contract(
        {},
        {
          more: {
            parameters: [
              { name: "cursor", in: "query", schema: text },
              { name: "since", in: "query", required: true, schema: text },
            ],
          },
        },
      ),
      "ask.parameter.new-required: breaking, breaking",
    ],
  ])("page by page, if it %s", async (_what, after, expected) => {
    expect(await told(contract({}), after, pages)).toContain(expected);
  });

  it("as a stream, by its failures", async () => {
    const lines = (operationId: string) =>
      JSON.stringify({
        openapi: "3.1.0",
        info: { title: "Orders", version: "1" },
        paths: {
          "/log": {
            get: {
              operationId,
              responses: {
                200: {
                  description: "",
                  content: { "application/json": { schema: text }, "application/x-ndjson": { schema: text } },
                },
                409: { description: "", ...json(record({ why: text })) },
              },
            },
          },
        },
      });
    const guards = "export const failed = (error: unknown) => sdk.isReadLogStreamFailure(error);";
    const project = told(lines("readLog"), lines("readAll"), guards);
    await expect(project).resolves.toContain("operation.renamed: breaking, compatible");
  });
});

describe("a field that was removed from a type", () => {
  const schema = (me: string, user: string) =>
    `type Query { me: ${me} boss: User }\ntype User { id: ID! ${user} }\ntype Person { id: ID! age: Int }\n`;

  it("is not the one that a document selects from the new type", async () => {
    const project = new TemporaryProject({
      "crew.graphql": schema("User", "age: Int"),
      "src/me.graphql": "query Me { me { id age } }\n",
      "rhema.json": JSON.stringify({
        contracts: { crew: { from: "crew.graphql", queries: ["src/*.graphql"] } },
        sdks: { app: { language: "typescript", covers: ["crew"], into: "src/sdk" } },
      }),
    });
    await project.run(["generate"]);
    const used = async () => {
      const { code, out } = await project.run(["impact", "--json"]);
      const [{ changes }] = (JSON.parse(out) as { contracts: [{ changes: Told[] }] }).contracts;
      return [
        code,
        ...changes.filter(({ use, verdict }) => use === "used" && verdict.code === "breaking").map((each) => each.code),
      ];
    };
    project.write("crew.graphql", schema("Person", ""));
    expect(await used()).toEqual([0]);
    project.write("crew.graphql", schema("User", ""));
    expect(await used()).toEqual([1, "answer.field.gone"]);
  });
});
