import { print } from "graphql";
import { load } from "js-yaml";
import { compareGraphql } from "../../../src/core/change/compare/compareGraphql.js";
import { compareGraphqlNames } from "../../../src/core/change/compare/compareGraphqlNames.js";
import { comparePlans } from "../../../src/core/change/compare/comparePlans.js";
import { compareRest } from "../../../src/core/change/compare/compareRest.js";
import { judgeUse } from "../../../src/core/change/judge/impact.js";
import { judgeByPlans } from "../../../src/core/change/judge/judgeByPlans.js";
import { withoutTaken } from "../../../src/core/change/compare/withoutTaken.js";
import type { RestContract } from "../../../src/core/contract/model.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { refusedQueries } from "../../../src/core/graphql/documents/refusedQueries.js";
import type { Language } from "../../../src/core/languages/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import type { ContractPlan } from "../../../src/core/sdk/sdkPlan.js";
import type { SourceUse } from "../../../src/core/use/sourceUse.js";
import { regattaQueries, regattaSchema } from "../../../truth/graphqlBases.js";
import { graphqlEdits, schemaTree } from "../../../truth/graphqlEdits.js";
import { restEdits } from "../../../truth/restEdits.js";
import { demoText } from "../../support/demoText.js";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";
import type { Variant } from "./countedTruth.js";

/** The number of edits for each contract. */
export const countOfEdits = Number(process.env["TRUTH_EDITS"] ?? 60);
const firstSeed = Number(process.env["TRUTH_SEED"] ?? 1);

/** The settings of SDKs of edited contracts. */
export interface EditedLanguage {
  readonly language: Language;
  readonly runtime: ReadonlyMap<string, string>;
  readonly settings: Readonly<Record<string, unknown>>;
  /** The extension of its files. */
  readonly ending: string;
}

/** A contract with its SDK, and both after an edit. */
export interface EditedContract {
  readonly sdk: ReadonlyMap<string, string>;
  /** @param source the app's uses of the SDK */
  readonly variants: (source: readonly SourceUse[]) => Variant[];
}

function printed(
  plan: ContractPlan,
  { language, runtime, settings, ending }: EditedLanguage,
  scalars: readonly [string, string][] = [],
) {
  const files = printSdk(
    language,
    { name: "app", contracts: [plan] },
    { runtime, scalars: new Map([[plan.name, new Map(scalars)]]), settings },
  );
  return new Map([...files].filter(([path]) => path.endsWith(ending)));
}

/** Edits with an effect, from the first seed on. */
function variants(make: (seed: number, random: Randomness) => Variant | undefined): Variant[] {
  const found: Variant[] = [];
  for (let seed = firstSeed; found.length < countOfEdits; seed++) {
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

/** The demo's REST contract. */
export function editedBerths(made: EditedLanguage): EditedContract {
  const lists = ["listBerths", "listReservations", "listVessels"];
  const rest = {
    pages: Object.fromEntries(lists.map((name) => [name, { by: "cursor", parameter: "cursor" } as const])),
  };
  const document = load(demoText("contracts/v1/berths.yaml")) as Json;
  const before = readRest(document);
  const facts = made.language.facts({ settings: made.settings, rest, scalars: new Map() });
  return {
    sdk: printed(planRest(before, rest), made),
    variants: (source) =>
      variants((seed, random) => {
        const edit = random.pick(restEdits);
        const edited = structuredClone(document);
        if (!edit.apply(edited, random)) return undefined;
        const after = readRest(edited);
        const judged = judgeUse(compareRest(before, after, facts), "rest", { queries: [], searched: true, source });
        return { told: `${String(seed)} ${edit.kind}`, judged, files: printed(planRest(after, rest), made) };
      }),
  };
}

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

/** A schema with its queries. @param unions whether unions and enums are open */
export function editedFleet(given: EditedLanguage, unions: "open" | "closed"): EditedContract {
  const made = { ...given, settings: { ...given.settings, unions, choices: unions } };
  const before = readSchema(regattaSchema, unions);
  const facts = made.language.facts({ settings: made.settings, rest: {}, scalars: new Map(scalars) });
  return {
    sdk: printed(before.plan, made, scalars),
    variants: (source) =>
      variants((seed, random) => {
        const edit = random.pick(graphqlEdits);
        const tree = schemaTree(regattaSchema);
        if (!edit.apply(tree, random)) return undefined;
        const after = readSchema(print(tree as never), unions);
        // Nobody publishes an edit that makes the schema invalid.
        if (after.contract.setAside.length > 0) return undefined;
        const refused = refusedQueries(before.read.problems, after.read.problems, queries);
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
        const files = printed(after.plan, made, scalars);
        return { told: `${String(seed)} ${edit.kind}`, judged, files, isRefused: refused.length > 0 };
      }),
  };
}
