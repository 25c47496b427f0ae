import { existsSync, readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { validate, parse } from "graphql";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { schemaCopy } from "../../../src/core/graphql/schemaCopy.js";
import { printTypescriptSdk } from "../../support/typescriptSdk.js";
import type { TypescriptSettings } from "../../../src/core/languages/typescript/settings.js";
import type { SourceText } from "../../../src/core/problem/place.js";
import { readContract } from "../../../src/core/readContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest, type RestSettings } from "../../../src/core/sdk/planRest.js";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import { hashOf } from "../../../src/workspace/files/textFile.js";
import { packageRoot } from "../../support/packageRoot.js";
import { runtime } from "../../support/readRest.js";
import { makeContract } from "../random/makeContract.js";
import { Randomness } from "../random/randomness.js";
import { makeGraphqlSchema, scalars } from "../random/graphql/makeGraphqlSchema.js";
import { makeQuery } from "../random/graphql/makeQuery.js";
import { uglyCases } from "../ugly/uglyContracts.js";

type Settings = TypescriptSettings;

/** An SDK to make: with the same name, it must be the same byte for byte. */
export interface MadeSdk {
  readonly name: string;
  readonly files: () => ReadonlyMap<string, string>;
}

const own = { type: "Own", from: "../own.js", decode: "decodeOwn", encode: "encodeOwn" };

/** Every setting on its own, then together in the combinations that need most from each other. */
const settingsByName: Readonly<Record<string, Settings>> = {
  plain: {},
  "dates decoded": { dates: "decoded" },
  "int64 bigint": { int64: "bigint" },
  "int64 text": { int64: "text" },
  "own formats": { formats: { uuid: own, "date-time": { ...own, encode: "decodeOwn" }, Instant: own, Stamp: own } },
  "choices open": { choices: "open" },
  "failures returned": { failures: "return" },
  "answers verified": { verify: "answers" },
  testing: { testing: true },
  cached: { cached: true },
  "unions open": { unions: "open" },
  "fragments sealed": { fragments: "sealed" },
  parsed: { parsed: true },
  manifest: { manifest: true },
  schema: { schema: true },
  "bare imports": { imports: "bare" },
  everything: {
    dates: "decoded",
    int64: "bigint",
    formats: { uuid: own, Instant: own },
    choices: "open",
    failures: "return",
    verify: "answers",
    testing: true,
    cached: true,
    unions: "open",
    fragments: "sealed",
    parsed: true,
    manifest: true,
    schema: true,
  },
  "everything as text": {
    int64: "text",
    dates: "decoded",
    verify: "answers",
    testing: true,
    parsed: true,
    fragments: "sealed",
  },
};

const several = ["plain", "everything", "everything as text"] as const;

/** SDKs for the demo with all settings, and for the ugly and the random contracts with some. */
export function madeSdks(): MadeSdk[] {
  return [...demo(), ...ugly(), ...randomContracts(60), ...randomSchemas(30)];
}

function demo(): MadeSdk[] {
  const text = (path: string): SourceText => ({ document: path, text: readFileSync(join(packageRoot, path), "utf8") });
  const queries = readdirSync(join(packageRoot, "demo/app/queries")).sort();
  return (["v1", "v2"] as const).flatMap((version) => {
    const documents = queries.map((file) => {
      const newer = `demo/app-v2/queries/${file}`;
      return text(version === "v2" && existsSync(join(packageRoot, newer)) ? newer : `demo/app/queries/${file}`);
    });
    return Object.entries(settingsByName).map(([how, settings]) => ({
      name: `demo ${version}, ${how}`,
      files: () =>
        printed(
          [
            restSide("berths", text(`demo/contracts/${version}/berths.yaml`), {
              standing: how === "testing" ? ["harbourId"] : [],
              pages: Object.fromEntries(
                ["listBerths", "listReservations", "listVessels"].map((call) => [
                  call,
                  { by: "cursor", parameter: "cursor" } as const,
                ]),
              ),
            }),
            graphqlSide("passages", text(`demo/contracts/${version}/passages.graphql`), documents, settings),
          ],
          settings,
        ),
    }));
  });
}

function ugly(): MadeSdk[] {
  return uglyCases.flatMap(({ does, document }) =>
    several.slice(0, 2).map((how) => ({
      name: `ugly: ${does}, ${how}`,
      files: () => printed([restSide("case", asText(document))], settingsByName[how] ?? {}),
    })),
  );
}

function randomContracts(count: number): MadeSdk[] {
  return Array.from({ length: count }, (_, at) => at + 1).flatMap((seed) =>
    several.map((how) => ({
      name: `random contract ${String(seed)}, ${how}`,
      files: () => printed([restSide("api", asText(makeContract(seed).document))], settingsByName[how] ?? {}),
    })),
  );
}

const queriesPerSchema = 3;

function randomSchemas(count: number): MadeSdk[] {
  return Array.from({ length: count }, (_, at) => at + 1).flatMap((seed) =>
    [...several, "unions open" as const].map((how) => ({
      name: `random schema ${String(seed)}, ${how}`,
      files: () => {
        const random = new Randomness(seed * 7919);
        const schema = { document: "s.graphql", text: makeGraphqlSchema(random) };
        const built = readGraphqlContract("api", [schema]).schema;
        if (!built) throw new Error(`seed ${String(seed)} gives no schema`);
        const documents: SourceText[] = [];
        while (documents.length < queriesPerSchema) {
          const { text } = makeQuery(built, random, `Q${String(documents.length)}`);
          if (validate(built, parse(text)).length === 0) documents.push({ document: "q.graphql", text });
        }
        const settings = settingsByName[how] ?? {};
        return printed([graphqlSide("api", schema, documents, settings)], settings);
      },
    })),
  );
}

interface Side {
  readonly plan: ContractPlan;
  readonly schema?: string;
}

function restSide(name: string, source: SourceText, settings: RestSettings = {}): Side {
  const { contract, problems } = readContract(name, [source]);
  if (contract?.protocol !== "rest") throw new Error(problems.map(({ message }) => message).join("\n"));
  return { plan: planRest(contract, settings) };
}

function graphqlSide(name: string, source: SourceText, documents: readonly SourceText[], settings: Settings): Side {
  const { contract, schema } = readGraphqlContract(name, [source]);
  if (!contract || !schema) throw new Error(`${name} cannot be read.`);
  const queries = readQueryDocuments(schema, documents, { fragments: settings.fragments ?? "inline" });
  const formats = Object.keys(settings.formats ?? {}).filter((format) => contract.types.has(format));
  const known = formats.map((format): [string, { format: string }] => [format, { format }]);
  const plan = planGraphql(contract, queries, {
    scalars: new Map<string, { format?: string }>([
      ...[...scalars.keys()].map((each) => [each, {}] as const),
      ...known,
    ]),
    unions: settings.unions ?? "closed",
  });
  return { plan, schema: schemaCopy(schema) };
}

function printed(sides: readonly Side[], settings: Settings): ReadonlyMap<string, string> {
  return printTypescriptSdk(
    { name: "board", contracts: sides.map(({ plan }) => plan) },
    {
      runtime,
      scalars: new Map(sides.map(({ plan }) => [plan.name, scalars])),
      settings,
      ...(settings.schema === true
        ? { schemas: new Map(sides.flatMap(({ plan, schema }) => (schema === undefined ? [] : [[plan.name, schema]]))) }
        : {}),
      hash: hashOf,
    },
  );
}

function asText(document: unknown): SourceText {
  return { document: "api.json", text: JSON.stringify(document) };
}
