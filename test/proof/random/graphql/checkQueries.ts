import { parse, validate, type GraphQLSchema } from "graphql";
import type { GraphqlPlan } from "../../../../src/core/sdk/sdkPlan.js";
import type { TypescriptSettings } from "../../../../src/core/languages/typescript/settings.js";
import { compilerComplaints, lintComplaints } from "../../../support/compiler.js";
import { programOf, virtualFolder } from "../compile.js";
import { testedCore, type TestedCore } from "../testedCore.js";
import { Randomness } from "../randomness.js";
import { executed } from "./executed.js";
import { makeGraphqlSchema, scalars } from "./makeGraphqlSchema.js";
import { makeQuery, type MadeQuery } from "./makeQuery.js";

export interface CheckedQueries {
  readonly schemas: number;
  readonly queries: number;
  /** Responses of an executing server that the compiler had to accept. */
  readonly taken: number;
  /** Changed responses and left-out variables that the compiler had to refuse. */
  readonly refused: number;
  /** Generated queries that the specification forbids. Others replace them. */
  readonly discarded: number;
  readonly occurred: ReadonlyMap<string, number>;
  readonly failures: readonly string[];
}

interface Count {
  taken: number;
  refused: number;
  discarded: number;
}

export interface CheckQueriesOptions {
  /** The core to check; by default the normal one. */
  readonly core?: TestedCore;
  readonly runtime: ReadonlyMap<string, string>;
  readonly lint: boolean;
  readonly settings?: Omit<TypescriptSettings, "imports">;
}

const queriesPerSchema = 3;
const answersPerQuery = 3;

/**
 * Checks random schemas with random queries. Their SDK compiles, and responses of an executing server are literals of
 * the generated types. A null where the schema has none, a missing field and a value of another type are refused.
 */
export function checkQueries(seeds: readonly number[], options: CheckQueriesOptions): CheckedQueries {
  const { runtime, lint, settings, core = testedCore } = options;
  const count: Count = { taken: 0, refused: 0, discarded: 0 };
  const occurred = new Map<string, number>();
  const failures: string[] = [];
  const probes = new Map<string, string>();
  const isSealed = settings?.fragments === "sealed";
  const plans: GraphqlPlan[] = [];
  for (const seed of seeds) {
    const random = new Randomness(seed * 7919);
    const text = makeGraphqlSchema(random);
    const contract = `c${String(seed)}`;
    const reading = core.readGraphqlContract(contract, [{ document: "s.graphql", text }]);
    if (!reading.contract || !reading.schema || reading.contract.setAside.length > 0)
      throw new Error(
        `seed ${String(seed)}: ${JSON.stringify([reading.problems, reading.contract?.setAside])}\n${text}`,
      );
    const made = Array.from({ length: queriesPerSchema }, (_, at) =>
      validQuery(reading.schema!, random, `Q${String(at)}`, count),
    );
    const { schema } = reading;
    const documents = made.map((query, at) => ({ document: `q${String(at)}.graphql`, text: query.text }));
    const { operations, problems, fragments, uses } = core.readQueryDocuments(schema, documents, {
      fragments: isSealed ? "sealed" : "inline",
    });
    for (const each of problems.filter(({ level }) => level === "error"))
      failures.push(`seed ${String(seed)}: ${each.message}`);
    plans.push(
      core.planGraphql(
        reading.contract,
        { operations, fragments, uses },
        { scalars: new Map([["Stamp", {}]]), ...(settings?.unions ? { unions: settings.unions } : {}) },
      ),
    );
    const lines: string[] = [];
    // Fields that sealed fragments select to distinguish types are not in the types without sealing.
    const inline = isSealed ? core.readQueryDocuments(schema, documents).operations : operations;
    inline.forEach((operation) => {
      const query = made.find((_, at) => operation.name === `Q${String(at)}`);
      if (query) lines.push(...probesOf(schema, operation, query, random, contract, count, isSealed));
    });
    const imports = `import type * as sdk from "./sdk/${contract}/index.js";\n`;
    probes.set(`probes${String(seed)}.ts`, imports + lines.join("\n"));
    for (const [feature, times] of random.occurred) occurred.set(feature, (occurred.get(feature) ?? 0) + times);
  }
  const sdk = core.printTypescriptSdk(
    { name: "app", contracts: plans },
    {
      runtime,
      scalars: new Map(plans.map(({ name }) => [name, scalars])),
      ...(settings ? { settings } : {}),
    },
  );
  const code = new Map([...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]));
  const files = new Map([...code, ...probes]);
  const program = programOf(files);
  const complaints = compilerComplaints(program, virtualFolder);
  const own = new Map([...code].filter(([path]) => !path.startsWith("sdk/wire/")));
  if (lint) complaints.push(...lintComplaints(program, virtualFolder, own));
  for (const { file, line, code, message } of complaints) {
    const rows = files.get(file)?.split("\n") ?? [];
    const shown = (message.startsWith("Unused") ? [rows[line - 1], rows[line]] : [rows[line - 2], rows[line - 1]]).map(
      (each) => (each ?? "").slice(0, 500),
    );
    failures.push(`${file}:${String(line)} ${code}: ${message.slice(0, 400)}\n    ${shown.join("\n    ")}`);
  }
  return {
    schemas: seeds.length,
    queries: plans.reduce((all, plan) => all + plan.calls.length, 0),
    ...count,
    occurred,
    failures,
  };
}

function validQuery(schema: GraphQLSchema, random: Randomness, name: string, count: Count): MadeQuery {
  for (let tries = 0; tries < 200; tries++) {
    const query = makeQuery(schema, random, name);
    if (validate(schema, parse(query.text)).length === 0) return query;
    count.discarded++;
  }
  throw new Error("No valid query could be made.");
}

type Path = readonly (string | number)[];

/** Lines that the compiler must accept, and lines that it must refuse. */
function probesOf(
  schema: GraphQLSchema,
  { text, name }: { readonly text: string; readonly name: string },
  query: MadeQuery,
  random: Randomness,
  contract: string,
  count: Count,
  isSealed: boolean,
): string[] {
  const lines: string[] = [];
  const seen: Seen = new Map();
  const answer = `sdk.${name}${isSealed ? "Whole" : "Answer"}`;
  const declare = (type: string, value: unknown): string =>
    `export const ${contract}_${name}_${String(lines.length)}: ${type} = ${JSON.stringify(value)};`;
  const take = (type: string, value: unknown): void => {
    count.taken++;
    lines.push(declare(type, value));
  };
  const refuse = (type: string, value: unknown): void => {
    count.refused++;
    lines.push(`// @ts-expect-error not what the schema and the query say\n${declare(type, value)}`);
  };
  for (let at = 0; at < answersPerQuery; at++) {
    const conditions = Object.fromEntries(
      ["c1", "c2"].filter((each) => each in query.variables).map((each) => [each, random.chance(0.5)]),
    );
    const { data, errors, nonNull, leaves } = executed(schema, text, { ...query.variables, ...conditions }, random);
    if (errors.length > 0) throw new Error(`${contract}: ${errors.join("; ")}\n${text}`);
    take(answer, data);
    if (Object.keys(conditions).length === 0)
      for (const path of taggedWrongly(data, seen))
        refuse(answer, changed(data, path.path, random.hit("another type's name", path.name)));
    const [firm, leaf] = [
      nonNull.length > 0 ? random.pick(nonNull) : undefined,
      leaves.length > 0 ? random.pick(leaves) : undefined,
    ];
    if (firm) refuse(answer, changed(data, firm, random.hit("null where none may be", null)));
    if (leaf) refuse(answer, changed(data, leaf, random.hit("a value of another kind", { other: "kind" })));
    const field = leaf?.findLastIndex((each) => typeof each === "string");
    if (leaf && field !== undefined && field >= 0 && Object.keys(conditions).length === 0)
      refuse(answer, removed(data, random.hit("a field too few", leaf.slice(0, field + 1))));
    if (leaf && field !== undefined && field >= 0)
      refuse(answer, added(data, leaf.slice(0, field), random.hit("a field too many", "tooMuch")));
  }
  if (query.needed.length + Object.keys(query.variables).length > 0) {
    take(`sdk.${name}Variables`, query.variables);
    // Only the one-of input of random schemas has none but one key. Every other has `need`.
    for (const [variable, value] of Object.entries(query.variables))
      if (typeof value === "object" && value !== null && !Array.isArray(value) && !("need" in value))
        refuse(`sdk.${name}Variables`, {
          ...query.variables,
          [variable]: random.hit("one-of with two", { id: "a", name: "b" }),
        });
    for (const needed of query.needed) {
      const { [needed]: _gone, ...others } = query.variables;
      refuse(`sdk.${name}Variables`, random.hit("a variable left out", others));
      refuse(`sdk.${name}Variables`, { ...others, [needed]: random.hit("null for a variable", null) });
    }
  }
  return lines;
}

function changed(data: unknown, [key, ...rest]: Path, value: unknown): unknown {
  if (key === undefined) return value;
  if (Array.isArray(data)) return data.map((item, at) => (at === key ? changed(item, rest, value) : (item as unknown)));
  const record = data as Record<string, unknown>;
  return { ...record, [key]: changed(record[key], rest, value) };
}

function removed(data: unknown, [key, ...rest]: Path): unknown {
  if (Array.isArray(data)) return data.map((item, at) => (at === key ? removed(item, rest) : (item as unknown)));
  const record = data as Record<string, unknown>;
  const { [String(key)]: inner, ...others } = record;
  return rest.length === 0 ? others : { ...record, [String(key)]: removed(inner, rest) };
}

function added(data: unknown, [key, ...rest]: Path, field: string): unknown {
  if (key === undefined) return { ...(data as object), [field]: 1 };
  if (Array.isArray(data)) return data.map((item, at) => (at === key ? added(item, rest, field) : (item as unknown)));
  const record = data as Record<string, unknown>;
  return { ...record, [key]: added(record[key], rest, field) };
}

/** By place without list positions and by `__typename`: the keys of an object in the response. */
type Seen = Map<string, Map<string, ReadonlySet<string>>>;

/**
 * A place whose `__typename` could be exchanged for that of another object in the response without one of its keys. It
 * is only useful if no condition leaves keys out.
 */
function taggedWrongly(data: unknown, seen: Seen): { readonly path: Path; readonly name: string }[] {
  const found: { readonly path: Path; readonly name: string }[] = [];
  const look = (value: unknown, path: Path): void => {
    if (typeof value !== "object" || value === null) return;
    if (Array.isArray(value)) {
      value.forEach((item: unknown, at) => {
        look(item, [...path, at]);
      });
      return;
    }
    const record = value as Record<string, unknown>;
    const { __typename: name } = record;
    for (const [key, inner] of Object.entries(record)) look(inner, [...path, key]);
    if (typeof name !== "string") return;
    const place = path.filter((each) => typeof each === "string").join(".");
    const here = seen.get(place) ?? new Map<string, ReadonlySet<string>>();
    seen.set(place, here);
    here.set(name, new Set(Object.keys(record)));
    const other = [...here].find(([each, keys]) => each !== name && Object.keys(record).some((key) => !keys.has(key)));
    if (other) found.push({ path: [...path, "__typename"], name: other[0] });
  };
  look(data, []);
  return found.slice(0, 1);
}
