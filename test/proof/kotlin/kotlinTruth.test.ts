import { load } from "js-yaml";
import { print } from "graphql";
import { expect, it } from "vitest";
import { compareGraphql } from "../../../src/core/change/compareGraphql.js";
import { compareGraphqlNames } from "../../../src/core/change/compareGraphqlNames.js";
import { comparePlans } from "../../../src/core/change/comparePlans.js";
import { compareRest } from "../../../src/core/change/compareRest.js";
import { judgeByPlans } from "../../../src/core/change/judgeByPlans.js";
import { judgeUse } from "../../../src/core/change/impact.js";
import { withoutTaken } from "../../../src/core/change/withoutTaken.js";
import type { RestContract } from "../../../src/core/contract/model.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/readQueryDocuments.js";
import { refusedQueries } from "../../../src/core/graphql/refusedQueries.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import { regattaQueries, regattaSchema } from "../../../truth/graphqlBases.js";
import { graphqlEdits, schemaTree } from "../../../truth/graphqlEdits.js";
import { restEdits } from "../../../truth/restEdits.js";
import { demoText } from "../../support/demoText.js";
import { canCompileKotlin } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";
import { appSources, truthOf, usesOf, type KotlinTruth, type Truth, type Variant } from "./truthInKotlin.js";

const count = Number(process.env["TRUTH_EDITS"] ?? 60);
const firstSeed = Number(process.env["TRUTH_SEED"] ?? 1);

function told(what: string, { breaking, told: said, right, wrong }: Truth): void {
  process.stdout.write(
    `${String(count)} edits of ${what}: ${String(breaking)} break the app, ${String(said)} are told, ${String(right)} of them rightly\n`,
  );
  expect(wrong).toEqual([]);
}

/** An SDK's sources in Kotlin. */
function printed(plan: ContractPlan, settings: { readonly namespace: string }, scalars: [string, string][] = []) {
  const files = printSdk(
    language,
    { name: "app", contracts: [plan] },
    { runtime: kotlinRuntime, scalars: new Map([[plan.name, new Map(scalars)]]), settings },
  );
  return new Map([...files].filter(([path]) => path.endsWith(".kt")));
}

/** Edits that apply, from the first seed on. */
function variants(make: (seed: number, random: Randomness) => Variant | undefined): Variant[] {
  const found: Variant[] = [];
  for (let seed = firstSeed; found.length < count; seed++) {
    const variant = make(seed, new Randomness(seed));
    if (variant) found.push(variant);
  }
  return found;
}

function readRest(document: Json): RestContract {
  const { contract } = readContract("berths", [{ document: "berths.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest") throw new Error("The contract cannot be read.");
  return contract;
}

it(`${String(count)} edits break an app in Kotlin where they are said to, and nowhere else`, async () => {
  if (!canCompileKotlin("predictions for Kotlin")) return;
  const settings = { namespace: "com.ostrel.harbour" };
  const lists = ["listBerths", "listReservations", "listVessels"];
  const rest = {
    pages: Object.fromEntries(lists.map((name) => [name, { by: "cursor", parameter: "cursor" } as const])),
  };
  const document = load(demoText("contracts/v1/berths.yaml")) as Json;
  const before = readRest(document);
  const sdk = printed(planRest(before, rest), settings);
  const truth: KotlinTruth = { app: appSources("harbourApp"), ...settings, contract: "berths", sdk };
  const uses = usesOf(truth, "BerthsConnection");
  const facts = language.facts({ settings, rest, scalars: new Map() });
  const made = variants((seed, random) => {
    const edit = random.pick(restEdits);
    const edited = structuredClone(document);
    if (!edit.apply(edited, random)) return undefined;
    const after = readRest(edited);
    const judged = judgeUse(compareRest(before, after, facts), "rest", { queries: [], searched: true, source: uses });
    return { told: `${String(seed)} ${edit.kind}`, judged, files: printed(planRest(after, rest), settings) };
  });
  told("a contract", await truthOf(truth, made));
});

const queries = regattaQueries.map((text, at) => ({ document: `q${String(at)}.graphql`, text }));
const scalars: [string, string][] = [
  ["Moment", "String"],
  ["Colour", "String"],
];

function readSchema(text: string, unions: "open" | "closed") {
  const { contract, schema } = readGraphqlContract("fleet", [{ document: "schema.graphql", text }]);
  if (!contract || !schema) throw new Error("The schema cannot be read.");
  const read = readQueryDocuments(schema, queries, { fragments: "named" });
  const plan = planGraphql(contract, read, { unions, scalars: new Map(scalars.map(([name]) => [name, {}])) });
  return { contract, schema, read, plan };
}

it.each(["open", "closed"] as const)(
  `${String(count)} edits of a schema break an app in Kotlin where they are said to, and nowhere else: unions and choices %s`,
  async (how) => {
    if (!canCompileKotlin(`predictions for queries in Kotlin, ${how}`)) return;
    const settings = { namespace: "com.ostrel.regatta", unions: how, choices: how };
    const before = readSchema(regattaSchema, how);
    // What is closed has nothing newer.
    const app = appSources("regattaApp").map(({ document, text }) => ({
      document,
      text: how === "open" ? text : text.replace(/^.*(?:\.Newer ->|else -> "white").*\n/gm, ""),
    }));
    const sdk = printed(before.plan, settings, scalars);
    const truth: KotlinTruth = { app, namespace: settings.namespace, contract: "fleet", sdk };
    const source = usesOf(truth, "FleetConnection");
    const facts = language.facts({ settings, rest: {}, scalars: new Map(scalars) });
    const made = variants((seed, random) => {
      const edit = random.pick(graphqlEdits);
      const tree = schemaTree(regattaSchema);
      if (!edit.apply(tree, random)) return undefined;
      const after = readSchema(print(tree as never), how);
      // An edit that makes no schema is none that anybody publishes.
      if (after.contract.setAside.length > 0) return undefined;
      const refused = refusedQueries(before.schema, after.schema, queries);
      const changes = [
        ...compareGraphql(before.contract, after.contract, facts),
        ...compareGraphqlNames(before, after, facts),
      ];
      const found = judgeUse(changes, "graphql", { queries: before.read.uses, searched: true, source });
      const differences = comparePlans(before, after, facts);
      const judged = judgeByPlans(
        withoutTaken(found, refused),
        [{ sdk: "app", differences, uses: { source } }],
        refused,
      );
      const files = printed(after.plan, settings, scalars);
      return { told: `${String(seed)} ${edit.kind}`, judged, files, isRefused: refused.length > 0 };
    });
    told(`a schema, ${how}`, await truthOf(truth, made));
  },
);
