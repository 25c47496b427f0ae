import type { GraphQLSchema } from "graphql";
import type { TakenArgument } from "../../core/call/readArguments.js";
import { isStream, operationLabel, type RestContract, type RestOperation } from "../../core/contract/model.js";
import { draftDocuments } from "../../core/graphql/draftDocument.js";
import { readQueryDocuments } from "../../core/graphql/readQueryDocuments.js";
import { contractNames } from "../../core/languages/typescript/identifiers.js";
import { graphqlCallNames } from "../../core/languages/typescript/printGraphqlCall.js";
import { restCallNames } from "../../core/languages/typescript/printRestCall.js";
import { printTypescriptSdk } from "../../core/languages/typescript/printTypescriptSdk.js";
import { problem } from "../../core/problem/problem.js";
import { planRest } from "../../core/sdk/planRest.js";
import type { ContractPlan, RestCall } from "../../core/sdk/sdkPlan.js";
import { camelCase } from "../../core/text/words.js";
import { didYouMean } from "../../core/text/nearest.js";
import { ContractReader, mappedScalars, planContract } from "../buildSdk.js";
import { exitCodes, Halt } from "../halt.js";
import { runtimeSources } from "../packageFolder.js";
import { haltOr, mergedHalt } from "../allOrHalt.js";
import type { Project } from "../project.js";
import { ProjectTexts } from "../sdkInputs.js";
import { hashOf } from "../textFile.js";

/** A call that somebody wants to try, and the smallest SDK that has it. */
export interface FoundCall {
  readonly contract: string;
  /** What the SDK calls it. */
  readonly name: string;
  /** "GET /berths", or "query Fleet". */
  readonly label: string;
  readonly connect: string;
  /** It answers item by item. */
  readonly isStream: boolean;
  /** It asks and changes nothing. */
  readonly isSafe: boolean;
  readonly taken: readonly TakenArgument[];
  readonly types: ContractPlan["types"];
  /** Names of the connection's credentials. */
  readonly credentials: readonly string[];
  /** Parameters that the connection supplies. */
  readonly standing: readonly TakenArgument[];
  /** Files of the SDK by path. */
  readonly files: ReadonlyMap<string, string>;
  /** The file with the call. */
  readonly file: string;
  readonly protocol: "rest" | "graphql";
  readonly source:
    | {
        readonly protocol: "rest";
        readonly contract: RestContract;
        readonly operation: RestOperation;
        readonly call: RestCall;
      }
    | { readonly protocol: "graphql"; readonly schema: GraphQLSchema; readonly text: string };
  /** What the stand-in plays it from. */
  readonly played: ReturnType<ContractReader["read"]>;
}

/**
 * Finds a call by its name in the SDK, its operationId or "GET /berths"; for GraphQL by the name of an operation or of
 * a root field, which is drafted when no query document asks for it.
 *
 * @throws Halt (usage) when no contract, or several, have such a call
 */
export async function findCall(project: Project, contracts: readonly string[], wanted: string): Promise<FoundCall> {
  const texts = new ProjectTexts(project);
  await texts.readHosts(contracts);
  const reader = new ContractReader(texts);
  const known: string[] = [];
  const halts: Halt[] = [];
  const found = contracts.flatMap((name) => {
    const reading = haltOr(() => reader.read(name));
    if (reading instanceof Halt) {
      halts.push(reading);
      return [];
    }
    const { contract, schema } = reading;
    if (contract.protocol === "rest")
      return restCalls(project, contract, wanted, known).map((each) => ({ ...each, played: reading }));
    return schema ? graphqlCalls(project, name, { reading, schema, texts }, wanted, known) : [];
  });
  const [first, second] = found;
  if (!first) {
    // It may be in one that cannot be read.
    if (halts.length > 0) throw mergedHalt(halts);
    const message = `No call is named \`${wanted}\` in ${contracts.join(" or ")}.`;
    const hint = didYouMean(wanted, known) ?? "`rhema outline --find TEXT` searches.";
    throw new Halt([problem("try.unknown", message, { hint })], exitCodes.usage);
  }
  if (second && second.contract !== first.contract) {
    const message = `Both ${first.contract} and ${second.contract} have \`${wanted}\`.`;
    throw new Halt([problem("try.unknown", message, { hint: "Say which with --contract NAME." })], exitCodes.usage);
  }
  return first;
}

function restCalls(
  project: Project,
  contract: RestContract,
  wanted: string,
  known: string[],
): Omit<FoundCall, "played">[] {
  const settings = project.configuration.contracts[contract.name] ?? { from: [] };
  const plan = planRest(contract, settings);
  const isWanted = (call: RestCall): boolean => {
    const names = [restCallNames(call).call, call.operation.operationId ?? "", operationLabel(call.operation)];
    known.push(...names);
    return names.includes(wanted);
  };
  const call = plan.calls.find(isWanted);
  if (!call) return [];
  // Names never depend on neighbours, so that the call alone is called the same.
  const { standing = [], pages = {} } = settings;
  const alone = planRest({ ...contract, operations: [call.operation], webhooks: [] }, { standing, pages });
  const own = alone.calls.find(({ name }) => name === call.name) ?? call;
  const files = sdkFiles(project, alone);
  const name = restCallNames(own).call;
  return [
    {
      contract: contract.name,
      name,
      label: operationLabel(call.operation),
      connect: contractNames(contract.name).connect,
      isStream: own.answers.some(({ form }) => isStream(form)),
      isSafe: ["get", "head", "options", "query"].includes(call.operation.method),
      taken: own.arguments.filter(({ standing }) => !standing),
      types: alone.types,
      credentials: [...alone.authSchemes].flatMap(([scheme, { kind }]) => (kind === "certificate" ? [] : [scheme])),
      standing: own.arguments.filter(({ standing }) => standing),
      files,
      file: fileOf(files, contract.name, name),
      protocol: "rest",
      source: { protocol: "rest", contract, operation: call.operation, call: own },
    },
  ];
}

function graphqlCalls(
  project: Project,
  contract: string,
  { reading, schema, texts }: { reading: FoundCall["played"]; schema: GraphQLSchema; texts: ProjectTexts },
  wanted: string,
  known: string[],
): FoundCall[] {
  const settings = project.configuration.contracts[contract] ?? { from: [] };
  const own = readQueryDocuments(schema, texts.queries(contract).texts);
  const drafted = draftDocuments(schema, { depth: 2, fields: [] });
  known.push(...own.operations.map(({ name }) => name), ...drafted.map(({ field }) => field));
  const lower = (name: string): string => camelCase(name);
  const operation = own.operations.find(({ name }) => name === wanted || lower(name) === wanted);
  const draft = operation ? undefined : drafted.find(({ field }) => field === wanted);
  const queries = operation
    ? { ...own, operations: [operation] }
    : draft && readQueryDocuments(schema, [{ document: "draft.graphql", text: draft.text }]);
  const [chosen] = queries?.operations ?? [];
  if (!queries || !chosen) return [];
  const plan = planContract(reading.contract, queries, { ...settings, types: "used", queries: [] }, {});
  const [call] = plan.protocol === "graphql" ? plan.calls : [];
  if (!call) return [];
  const files = sdkFiles(project, plan);
  const { call: name } = graphqlCallNames(call);
  return [
    {
      contract,
      name,
      label: `${chosen.root} ${chosen.name}`,
      connect: contractNames(contract).connect,
      isStream: chosen.root === "subscription",
      isSafe: chosen.root !== "mutation",
      taken: call.variables,
      types: plan.types,
      credentials: [],
      standing: [],
      files,
      file: fileOf(files, contract, name),
      protocol: "graphql",
      source: { protocol: "graphql", schema, text: chosen.text },
      played: reading,
    },
  ];
}

function sdkFiles(project: Project, plan: ContractPlan): Map<string, string> {
  return printTypescriptSdk(
    { name: "try", contracts: [plan] },
    {
      importEnding: "js",
      runtime: runtimeSources("typescript"),
      scalars: new Map([[plan.name, mappedScalars(project.configuration.contracts[plan.name])]]),
      hash: (text) => hashOf(text),
    },
  );
}

function fileOf(files: ReadonlyMap<string, string>, contract: string, call: string): string {
  const declaration = new RegExp(
    `^export (?:async )?(?:function\\*? ${call.replaceAll("$", "\\$")}\\b|const ${call.replaceAll("$", "\\$")}\\b)`,
    "m",
  );
  const found = [...files].find(
    ([path, text]) => path.startsWith(`${contract}/calls/`) && path.endsWith(".ts") && declaration.test(text),
  );
  if (!found) throw new Error(`No file of the SDK has the call ${call}.`);
  return found[0];
}
