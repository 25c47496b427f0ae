import { afterAll, beforeAll, expect, it } from "vitest";
import { printTypescriptSdk } from "../support/typescriptSdk.js";
import { planGraphql } from "../../src/core/sdk/planGraphql.js";
import { programOf, virtualFolder } from "./random/compile.js";
import { compilerComplaints } from "../support/compiler.js";
import { executingServer, type ExecutingServer } from "../support/executingServer.js";
import { readQueries } from "../support/readGraphql.js";
import { runtime } from "../support/readRest.js";

/** The field's type, the selection, the expected type, a valid value, and an invalid one. */
interface Kind {
  readonly name: string;
  readonly type: string;
  readonly selection: string;
  readonly expected: string;
  readonly value: unknown;
  readonly wrong: unknown;
}

const sail = { __typename: "Sail", id: "1", mast: 12.5, mate: { __typename: "Tug", id: "9" } };
const kinds: readonly Kind[] = [
  { name: "text", type: "String", selection: "", expected: "string", value: "a", wrong: 1 },
  { name: "integer", type: "Int", selection: "", expected: "number", value: 1, wrong: "1" },
  { name: "boolean", type: "Boolean", selection: "", expected: "boolean", value: true, wrong: "true" },
  { name: "enum", type: "Mood", selection: "", expected: '"CALM" | "WILD"', value: "CALM", wrong: "calm" },
  { name: "mapped scalar", type: "Stamp", selection: "", expected: "string", value: "now", wrong: 5 },
  {
    name: "object",
    type: "Person",
    selection: "{ name age }",
    expected: "{ name: string; age: number | null }",
    value: { name: "Ada", age: null },
    wrong: { name: null, age: null },
  },
  {
    name: "aliases",
    type: "Person",
    selection: "{ n: name name }",
    expected: "{ n: string; name: string }",
    value: { n: "Ada", name: "Ada" },
    wrong: { n: "Ada" },
  },
  {
    name: "interface alone",
    type: "Boat",
    selection: "{ id }",
    expected: "{ id: string }",
    value: { id: "1" },
    wrong: {},
  },
  {
    name: "interface with one object",
    type: "Boat",
    selection: "{ id ... on Sail { mast } }",
    expected: '{ __typename: "Sail"; id: string; mast: number } | { __typename: "Tug"; id: string }',
    value: { __typename: "Sail", id: "1", mast: 12.5 },
    wrong: { __typename: "Sail", id: "1" },
  },
  {
    name: "union",
    type: "Found",
    selection: "{ ... on Sail { mast } ... on Person { name } }",
    expected: '{ __typename: "Person"; name: string } | { __typename: "Sail"; mast: number }',
    value: { __typename: "Sail", mast: 12.5 },
    wrong: { __typename: "Person", mast: 12.5 },
  },
  {
    name: "named fragment",
    type: "Boat",
    selection: "{ ...OnBoat }",
    expected: '{ __typename: "Sail"; id: string; mast: number } | { __typename: "Tug"; id: string }',
    value: { __typename: "Sail", id: "1", mast: 12.5 },
    wrong: { __typename: "Tug", id: "1", mast: 1 },
  },
  {
    name: "merged",
    type: "Person",
    selection: "{ boat { id } boat { mate { id } } }",
    expected: "{ boat: { id: string; mate: { id: string } | null } }",
    value: { boat: { id: "1", mate: { id: "9" } } },
    wrong: { boat: { id: "1" } },
  },
  {
    name: "nested abstract",
    type: "Boat",
    selection: "{ mate { id ... on Sail { mast } } }",
    expected: '{ mate: { __typename: "Sail"; id: string; mast: number } | { __typename: "Tug"; id: string } | null }',
    value: { mate: null },
    wrong: { mate: { id: "1" } },
  },
  {
    name: "inner condition",
    type: "Person",
    selection: "{ name age @include(if: $v) }",
    expected: "{ name: string; age?: number | null }",
    value: { name: "Ada", age: null },
    wrong: { age: 3 },
  },
];

/** Null at every possible level, and a list around it. */
const wrappers: readonly {
  readonly name: string;
  readonly wrap: (type: string) => string;
  readonly expected: (type: string) => string;
  readonly value: (value: unknown) => unknown;
  readonly nulled: (value: unknown) => unknown;
}[] = [
  { name: "nullable", wrap: (t) => t, expected: (t) => `(${t}) | null`, value: (v) => v, nulled: () => undefined },
  { name: "non-null", wrap: (t) => `${t}!`, expected: (t) => t, value: (v) => v, nulled: () => null },
  {
    name: "list of nullable",
    wrap: (t) => `[${t}]!`,
    expected: (t) => `((${t}) | null)[]`,
    value: (v) => [v, null],
    nulled: () => null,
  },
  {
    name: "nullable list of non-null",
    wrap: (t) => `[${t}!]`,
    expected: (t) => `(${t})[] | null`,
    value: (v) => [v],
    nulled: (v) => [v, null],
  },
  {
    name: "list of nullable lists",
    wrap: (t) => `[[${t}!]]!`,
    expected: (t) => `((${t})[] | null)[]`,
    value: (v) => [[v], null],
    nulled: (v) => [[v, null]],
  },
];

const conditions = [
  { name: "always", directive: "", isOptional: false },
  { name: "@include", directive: " @include(if: $v)", isOptional: true },
  { name: "@skip", directive: " @skip(if: $w)", isOptional: true },
] as const;

interface Case {
  readonly id: string;
  readonly label: string;
  readonly field: string;
  readonly query: string;
  readonly expected: string;
  readonly accepted: unknown;
  readonly rejected: unknown;
  readonly data: unknown;
}

const cases: readonly Case[] = kinds.flatMap((kind, k) =>
  wrappers.flatMap((wrapper, w) =>
    conditions.map((condition, c): Case => {
      const [id, field] = [`Case${String(k)}x${String(w)}x${String(c)}`, `f${String(k)}x${String(w)}`];
      const type = wrapper.expected(kind.expected);
      const data = wrapper.value(full(kind));
      const accepted = wrapper.value(kind.value);
      const nulled = wrapper.nulled(kind.value);
      const isConditional = kind.selection.includes("$v") || condition.directive.includes("$v");
      const variables = [
        ...(isConditional ? ["$v: Boolean!"] : []),
        ...(condition.directive.includes("$w") ? ["$w: Boolean!"] : []),
      ];
      return {
        id,
        label: `${kind.name}, ${wrapper.name}, ${condition.name}`,
        field: `${field}: ${wrapper.wrap(kind.type)}`,
        query: `query ${id}${variables.length > 0 ? `(${variables.join(", ")})` : ""} { it: ${field}${condition.directive} ${kind.selection} }`,
        expected: `{ it${condition.isOptional ? "?" : ""}: ${type} }`,
        accepted: condition.isOptional && w % 2 === 0 ? {} : { it: accepted },
        rejected:
          c === 0 && k % 3 === 0
            ? {}
            : { it: nulled === undefined || k % 2 === 0 ? wrapper.value(kind.wrong) : nulled },
        data,
      };
    }),
  ),
);

/** The server's value for a type, whatever is selected. */
function full({ type, value }: Kind): unknown {
  if (type === "Boat" || type === "Found") return sail;
  return type === "Person"
    ? { name: "Ada", age: null, boat: { __typename: "Tug", id: "1", mate: { __typename: "Tug", id: "9" } } }
    : value;
}

const fields = [...new Set(cases.map(({ field }) => field))];
const schema = `
scalar Stamp
enum Mood { CALM WILD }
interface Boat { id: ID! mate: Boat }
type Sail implements Boat { id: ID! mate: Boat mast: Float! }
type Tug implements Boat { id: ID! mate: Boat }
type Person { name: String! age: Int boat: Boat! }
union Found = Sail | Person
type Query { ${fields.join("\n")} }
`;
const fragment = "fragment OnBoat on Boat { id ... on Sail { mast } }";

let server: ExecutingServer;
beforeAll(async () => {
  server = await executingServer(
    schema,
    Object.fromEntries(cases.map(({ field, data }) => [field.split(":")[0], data])),
  );
});
afterAll(() => {
  server.close();
});

it(`${String(cases.length)} cases: kind of selection x nullability x condition, each exact, with a value taken and one refused`, async () => {
  const { operations, fragments, uses, problems, contract } = readQueries(
    schema,
    cases.map(({ query }) => query).join("\n") + fragment,
  );
  expect(problems).toEqual([]);
  const plan = planGraphql(contract, { operations, fragments, uses }, { scalars: new Map([["Stamp", {}]]) });
  const scalars = new Map([["fleet", new Map([["Stamp", "string"]])]]);
  const sdk = printTypescriptSdk({ name: "app", contracts: [plan] }, { runtime, scalars });
  const texts = new Map(operations.map(({ name, text }) => [name, text]));
  const rows: string[] = [];
  for (const { id, expected, accepted, rejected } of cases) {
    const answer = await answered(texts.get(id) ?? "", id);
    rows.push(
      `export const same${id}: Same<Plain<sdk.${id}Answer>, ${expected}> = true;`,
      `export const takes${id}: sdk.${id}Answer = ${JSON.stringify(accepted)};`,
      `export const real${id}: sdk.${id}Answer = ${JSON.stringify(answer)};`,
      "// @ts-expect-error not what the schema and the query say",
      `export const refuses${id}: sdk.${id}Answer = ${JSON.stringify(rejected)};`,
    );
  }
  const probes = `import type * as sdk from "./sdk/fleet/index.js";
type Plain<T> = T extends object ? { [K in keyof T]: Plain<T[K]> } : T;
type Same<A, B> = (<T>() => T extends Plain<A> ? 1 : 2) extends (<T>() => T extends Plain<B> ? 1 : 2) ? true : false;
${rows.join("\n")}
`;
  const files = new Map([...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]));
  const lines = probes.split("\n");
  const complaints = compilerComplaints(programOf(new Map([...files, ["probes.ts", probes]])), virtualFolder).map(
    ({ file, line, message }) => {
      const shown = file === "probes.ts" ? `${lines[line - 1] ?? ""}\n${lines[line] ?? ""}` : "";
      const label = cases.find(({ id }) => shown.includes(`${id}:`))?.label ?? "";
      return `${file}:${String(line)} [${label}] ${message}\n${shown}`;
    },
  );
  process.stdout.write(
    `${String(cases.length)} cases of the typing matrix: each type exact, a value and a real answer taken, a value refused\n`,
  );
  expect(complaints).toEqual([]);
  expect(cases.length).toBeGreaterThanOrEqual(150);
}, 120_000);

async function answered(text: string, operationName: string): Promise<unknown> {
  const variables = { ...(text.includes("$v") ? { v: true } : {}), ...(text.includes("$w") ? { w: false } : {}) };
  const response = await fetch(server.address, {
    method: "POST",
    body: JSON.stringify({ query: text, operationName, variables }),
  });
  const { data, errors } = (await response.json()) as { data: unknown; errors?: unknown };
  expect(errors).toBeUndefined();
  return data;
}
