import type { GraphQLSchema } from "graphql";
import type { TakenArgument } from "../../core/call/readArguments.js";
import { operationLabel, type RestContract } from "../../core/contract/model.js";
import { draftDocuments } from "../../core/graphql/documents/draftDocument.js";
import { readQueryDocuments } from "../../core/graphql/documents/readQueryDocuments.js";
import type { Language } from "../../core/languages/language.js";
import type { ContractNames } from "../../core/sdk/contractNames.js";
import { printLowered } from "../../core/languages/printSdk.js";
import { settledSettings } from "../../core/languages/settings.js";
import { problem } from "../../core/problem/problem.js";
import { lowerSdk } from "../../core/sdk/lower/lowerSdk.js";
import { planRest } from "../../core/sdk/planRest.js";
import type { ContractPlan, PlannedArgument, RestCall } from "../../core/sdk/sdkPlan.js";
import { didYouMean } from "../../core/text/nearest.js";
import { camelCase } from "../../core/text/words.js";
import { haltOr, mergedHalt } from "../project/allOrHalt.js";
import { ContractReader } from "../sources/contractReader.js";
import { exitCodes, Halt } from "../project/halt.js";
import { mappedScalars, planContract } from "../generate/planContract.js";
import type { OpenedProject } from "../project/openProject.js";
import { ProjectTexts } from "../generate/sdkInputs.js";
import type { LoadedLanguage } from "../project/session.js";
import { hashOf } from "../files/textFile.js";
import type { FoundCall } from "./foundCall.js";

/**
 * Finds a call by its name in the SDK, its operationId or "GET /berths". For GraphQL, it is found by the name of an
 * operation or of a root field. Without a query document for the field, one is drafted.
 *
 * @param contracts the names of the contracts to search
 * @param id the language in which the smallest SDK with the call is printed
 * @throws Halt (usage) if no contract, or several, have such a call
 */
export async function findCall(
  project: OpenedProject,
  contracts: readonly string[],
  { wanted, id }: { readonly wanted: string; readonly id: string },
): Promise<FoundCall> {
  const texts = new ProjectTexts(project);
  await texts.readHosts(contracts);
  const search = new CallSearch(project, texts, id, await project.session.language(id));
  const halts: Halt[] = [];
  const found = contracts.flatMap((name) => {
    const calls = haltOr(() => search.find(name, wanted));
    if (!(calls instanceof Halt)) return calls;
    halts.push(calls);
    return [];
  });
  const [first, second] = found;
  if (!first) {
    // It may be in a contract that cannot be read.
    if (halts.length > 0) throw mergedHalt(halts);
    const message = `No call is named \`${wanted}\` in ${contracts.join(" or ")}.`;
    const hint = didYouMean(wanted, search.known) ?? "`rhema outline --find TEXT` searches.";
    throw new Halt([problem("try.unknown", message, { hint })], exitCodes.usage);
  }
  if (second && second.contract !== first.contract) {
    const message = `Both ${first.contract} and ${second.contract} have \`${wanted}\`.`;
    throw new Halt([problem("try.unknown", message, { hint: "Use --contract NAME." })], exitCodes.usage);
  }
  return first;
}

/** The name of the smallest SDK with a call. */
const smallest = "tried";

class CallSearch {
  /** All names that exist. */
  readonly known: string[] = [];
  private readonly language: Language;
  private readonly reader: ContractReader;

  constructor(
    private readonly project: OpenedProject,
    private readonly texts: ProjectTexts,
    private readonly id: string,
    private readonly loaded: LoadedLanguage,
  ) {
    this.language = loaded.language;
    this.reader = new ContractReader(texts);
  }

  /** @throws Halt (unreadable) if nothing in the contract can be read */
  find(name: string, wanted: string): FoundCall[] {
    const reading = this.reader.read(name);
    const { contract, schema } = reading;
    if (contract.protocol === "rest") return this.restCalls(contract, reading, wanted);
    return schema ? this.graphqlCalls(name, reading, schema, wanted) : [];
  }

  private restCalls(contract: RestContract, played: FoundCall["played"], wanted: string): FoundCall[] {
    const settings = this.project.configuration.contracts[contract.name] ?? { from: [] };
    const plan = planRest(contract, settings);
    const all = this.language.names(plan);
    const isWanted = (call: RestCall): boolean => {
      const names = [all.call(call).call, call.operation.operationId ?? "", operationLabel(call.operation)];
      this.known.push(...names);
      return names.includes(wanted);
    };
    const call = plan.calls.find(isWanted);
    if (!call) return [];
    const { standing = [], pages = {} } = settings;
    // Alone, it keeps its name.
    const operation = { ...call.operation, operationId: call.name };
    const alone = planRest({ ...contract, operations: [operation], webhooks: [] }, { standing, pages });
    const own = alone.calls.find((each) => each.operation === operation);
    if (!own) throw new Error(`The plan has no call of ${call.name}.`);
    const names = this.language.names(alone);
    const given = own.arguments.map((argument) => ({ argument, taken: takenBy(argument, names) }));
    const isStanding = ({ argument }: { readonly argument: PlannedArgument }): boolean => argument.standing;
    const printed = this.print(alone);
    return [
      {
        contract: contract.name,
        sdk: smallest,
        name: names.call(own).call,
        label: operationLabel(call.operation),
        connect: names.connect,
        isStream: printed.lowered.calls.some((each) => each.call === own && each.isStream),
        isSafe: ["get", "head", "options", "query"].includes(call.operation.method),
        taken: given.filter((each) => !isStanding(each)).map(({ taken }) => taken),
        types: alone.types,
        credentials: [...alone.authSchemes].flatMap(([scheme, { kind }]) => (kind === "certificate" ? [] : [scheme])),
        standing: given.filter(isStanding).map(({ taken }) => taken),
        ...printed,
        source: {
          protocol: "rest",
          contract,
          operation: call.operation,
          arguments: new Map(given.map(({ argument, taken }) => [taken.name, argument])),
        },
        played,
      },
    ];
  }

  private graphqlCalls(
    contract: string,
    reading: FoundCall["played"],
    schema: GraphQLSchema,
    wanted: string,
  ): FoundCall[] {
    const settings = this.project.configuration.contracts[contract] ?? { from: [] };
    const own = readQueryDocuments(schema, this.texts.queries(contract).texts);
    const drafted = draftDocuments(schema, { depth: 2, fields: [] });
    this.known.push(...own.operations.map(({ name }) => name), ...drafted.map(({ field }) => field));
    const operation = own.operations.find(({ name }) => name === wanted || camelCase(name) === wanted);
    const draft = operation ? undefined : drafted.find(({ field }) => field === wanted);
    const queries = operation
      ? { ...own, operations: [operation] }
      : draft && readQueryDocuments(schema, [{ document: "draft.graphql", text: draft.text }]);
    const [chosen] = queries?.operations ?? [];
    if (!queries || !chosen) return [];
    const alone = { ...settings, types: "used", queries: [] } as const;
    const plan = planContract(reading.contract, queries, {
      configured: alone,
      plannedFor: { language: this.id, settings: { unions: "closed" } },
    });
    const [call] = plan.protocol === "graphql" ? plan.calls : [];
    if (!call) return [];
    const names = this.language.names(plan);
    return [
      {
        contract,
        sdk: smallest,
        name: names.call(call).call,
        label: `${chosen.root} ${chosen.name}`,
        connect: names.connect,
        isStream: chosen.root === "subscription",
        isSafe: chosen.root !== "mutation",
        taken: call.variables,
        types: plan.types,
        credentials: [],
        standing: [],
        ...this.print(plan),
        source: { protocol: "graphql", schema, text: chosen.text },
        played: reading,
      },
    ];
  }

  /** The smallest SDK, with values as in JSON. */
  private print(plan: ContractPlan): Pick<FoundCall, "lowered" | "files" | "scalars"> {
    const { language, tools } = this.loaded;
    const sdk = lowerSdk({ name: smallest, contracts: [plan] }, settledSettings(language.settings, {}));
    const [lowered] = sdk.contracts;
    if (!lowered) throw new Error("An SDK of one contract has one.");
    const scalars = mappedScalars(this.project.configuration.contracts[plan.name], this.id);
    const files = printLowered(language, sdk, {
      settings: {},
      runtime: this.project.session.runtime(this.id, tools).files,
      scalars: new Map([[plan.name, scalars]]),
      hash: hashOf,
    });
    return { lowered, files, scalars };
  }
}

function takenBy(argument: PlannedArgument, names: ContractNames): TakenArgument {
  return { ...argument, name: names.argument(argument) };
}
