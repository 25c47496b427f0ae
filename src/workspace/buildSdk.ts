import { relative, resolve } from "node:path";
import type { Contract, SetAside } from "../core/contract/model.js";
import { isHostFile } from "../core/graphql/hostFile.js";
import type { QueryDocuments } from "../core/graphql/queryModel.js";
import { schemaCopy } from "../core/graphql/schemaCopy.js";
import { readQueryDocuments, type QueryReading } from "../core/graphql/readQueryDocuments.js";
import { printTypescriptSdk } from "../core/languages/typescript/printTypescriptSdk.js";
import type { OwnFormat, TypescriptSettings } from "../core/languages/typescript/settings.js";
import { problem, type Problem } from "../core/problem/problem.js";
import { readContract, type ContractReading } from "../core/readContract.js";
import type { ScalarMeaning } from "../core/sdk/graphqlTypes.js";
import { planGraphql } from "../core/sdk/planGraphql.js";
import { planRest } from "../core/sdk/planRest.js";
import type { ContractPlan, RestPlan } from "../core/sdk/sdkPlan.js";
import { wideIntegers } from "../core/sdk/wideIntegers.js";
import { sharedParameters } from "../core/sdk/sharedParameters.js";
import { selectOperations } from "../core/sdk/selectOperations.js";
import { didYouMean } from "../core/text/nearest.js";
import type { ContractConfiguration } from "./configuration.js";
import { exitCodes, Halt } from "./halt.js";
import { counted } from "../core/report/paint.js";
import { importEnding } from "./importEnding.js";
import { runtimeSources } from "./packageFolder.js";
import { pinTexts } from "./pins.js";
import { outputFolder, type Project } from "./project.js";
import type { ProjectTexts } from "./sdkInputs.js";
import { hashOf } from "./textFile.js";

/** What one contract gave an SDK. */
export interface BuiltContract {
  readonly contract: Contract;
  readonly plan: ContractPlan;
  readonly queries: QueryReading | undefined;
  readonly setAside: readonly SetAside[];
}

/** An SDK in memory: its files, its pin, and what there is to say about it. */
export interface BuiltSdk {
  readonly files: ReadonlyMap<string, string>;
  /** SHA-256 of each file. */
  readonly hashes: ReadonlyMap<string, string>;
  readonly pins: ReadonlyMap<string, string>;
  readonly contracts: readonly BuiltContract[];
  readonly problems: readonly Problem[];
  /** Errors in query documents; without `--partial` they hold the SDK back. */
  readonly queryErrors: readonly Problem[];
}

/** Reads contracts once, however many SDKs cover them. */
export class ContractReader {
  private readonly readings = new Map<string, ContractReading>();

  constructor(readonly texts: ProjectTexts) {}

  /** @throws Halt (unreadable) when nothing of the contract can be read */
  read(name: string): ContractReading & { contract: Contract } {
    const known = this.readings.get(name) ?? this.readWithParts(name);
    this.readings.set(name, known);
    const { contract } = known;
    if (contract) return { ...known, contract };
    const sources = [...this.texts.contract(name), ...(known.derived ?? [])];
    const documents = new Map(sources.map(({ document, text }) => [document, text]));
    throw new Halt(known.problems, exitCodes.unreadable, documents);
  }

  /** Reads a contract, and again with the documents it turns out to refer to, until it wants no more. */
  private readWithParts(name: string): ContractReading {
    const { texts } = this;
    texts.forgetParts(name);
    for (;;) {
      const reading = readSafely(name, texts);
      const wanted = reading.wanted ?? [];
      if (wanted.length === 0) return reading;
      for (const each of wanted) texts.addPart(name, each);
    }
  }

  /** Takes a reading for a contract instead of what the project has of it. */
  instead(name: string, reading: ContractReading): this {
    this.readings.set(name, reading);
    return this;
  }

  /** Forgets a reading, after more of its documents could be had. */
  forget(name: string): void {
    this.readings.delete(name);
  }
}

function readSafely(name: string, texts: ProjectTexts): ContractReading {
  try {
    const found = texts.schema(name);
    if (found.problems.some(({ level }) => level === "error")) return { problems: found.problems };
    const hosts = texts
      .contract(name)
      .map(({ document }) => document)
      .filter(isHostFile);
    if (hosts.length > 0 && found.texts.length === 0) return { problems: [noSchemaIn(hosts)] };
    const reading = readContract(name, found.texts, texts.unobtainable(name));
    texts.addDerived(reading.derived ?? []);
    return { ...reading, problems: [...found.problems, ...reading.problems] };
  } catch (error) {
    // Only nesting beyond all measure exhausts the stack.
    if (!(error instanceof RangeError)) throw error;
    const message = `The contract \`${name}\` is nested too deeply to be read.`;
    return { problems: [problem("contract.syntax", message, { hint: "Ask its authors; no tool will read it." })] };
  }
}

function noSchemaIn(hosts: readonly string[]): Problem {
  const files = hosts.map((document) => `\`${document}\``).join(", ");
  return problem("contract.kind", `${files} holds no schema text that can be read without running it.`, {
    hint: "Tag the text with `gql` or `graphql`, or let a command print it: `from: { run: … }`.",
  });
}

/** Reads, plans and prints one SDK. Writes nothing. */
export function buildSdk(project: Project, sdk: string, reader: ContractReader): BuiltSdk {
  const configuration = project.configuration.sdks[sdk];
  if (!configuration) throw new Error(`There is no SDK ${sdk}.`);
  const problems: Problem[] = [];
  const queryErrors: Problem[] = [];
  const pins = new Map<string, string>();
  const schemas = new Map<string, string>();
  const contracts = [...configuration.covers].sort().map((name): BuiltContract => {
    const reading = reader.read(name);
    project.trace(() => `read the contract ${name} into the model`);
    problems.push(...reading.problems);
    const settings = project.configuration.contracts[name] ?? { from: [] };
    const sdkSettings = configuration.settings ?? {};
    const queries = readQueries(name, reading, reader.texts, sdkSettings);
    const inQueries = [...reader.texts.queries(name).problems, ...(queries?.problems ?? [])];
    problems.push(...reader.texts.queryDocuments(name).problems, ...inQueries.filter(({ level }) => level !== "error"));
    queryErrors.push(...inQueries.filter(({ level }) => level === "error"));
    problems.push(...misspelt(project, name, reading.contract, settings));
    for (const [path, text] of pinTexts(project, sdk, reading, queries)) pins.set(path, text);
    if (queries) project.trace(() => `typed ${counted(queries.operations.length, "query", "queries")} of ${name}`);
    const plan = planContract(reading.contract, queries, settings, sdkSettings);
    project.trace(() => `planned ${counted(plan.calls.length, "call")} of ${name}`);
    if (sdkSettings.schema === true && reading.schema) schemas.set(name, schemaCopy(reading.schema));
    if (plan.protocol === "rest") problems.push(...proposals(project, plan, settings));
    problems.push(...losses(project, plan, sdk));
    return {
      contract: reading.contract,
      plan,
      queries,
      setAside: reading.contract.setAside,
    };
  });
  const folder = outputFolder(project, sdk, configuration.into);
  const files = printTypescriptSdk(
    { name: sdk, contracts: contracts.map(({ plan }) => plan) },
    {
      importEnding: configuration.settings?.imports ?? importEnding(project.root, folder),
      runtime: runtimeSources(configuration.language),
      settings: ownSettings(project, sdk, folder),
      scalars: new Map(
        configuration.covers.map((name) => [name, mappedScalars(project.configuration.contracts[name])]),
      ),
      schemas,
      hash: (text) => hashOf(text),
    },
  );
  project.trace(() => `printed ${counted(files.size, "file")} of the SDK ${sdk}`);
  const hashes = new Map([...files].map(([path, text]) => [path, hashOfFile(`${folder}/${path}`, text)]));
  return { files, hashes, pins, contracts, problems, queryErrors };
}

/** In a process that runs on, most files are what they were the last time. */
const lastHashes = new Map<string, { readonly text: string; readonly hash: string }>();

function hashOfFile(path: string, text: string): string {
  const last = lastHashes.get(path);
  if (last?.text === text) return last.hash;
  const hash = hashOf(text);
  lastHashes.set(path, { text, hash });
  return hash;
}

/** The query documents of a contract, checked and typed; undefined for REST. */
export function readQueries(
  name: string,
  reading: ContractReading,
  texts: ProjectTexts,
  { fragments = "inline" }: TypescriptSettings,
): QueryReading | undefined {
  return reading.schema && readQueryDocuments(reading.schema, texts.queries(name).texts, { fragments });
}

/** Plans a contract as the project configures it. */
export function planContract(
  contract: Contract,
  queries: QueryDocuments | undefined,
  settings: ContractConfiguration,
  { unions = "closed", formats = {} }: TypescriptSettings,
): ContractPlan {
  if (contract.protocol === "rest") return planRest(contract, settings);
  const known = Object.entries(settings.scalars ?? {}).filter(
    ([, { typescript, format }]) => format !== undefined || (typescript !== undefined && typescript !== "unknown"),
  );
  const own = Object.keys(formats).filter((format) => contract.types.get(format)?.role === "scalar");
  return planGraphql(contract, queries ?? { operations: [], fragments: [], uses: [] }, {
    scalars: new Map([
      ...own.map((format): [string, ScalarMeaning] => [format, { format }]),
      ...known.map(([name, { format }]): [string, ScalarMeaning] => [name, format === undefined ? {} : { format }]),
    ]),
    // Never by what happens to be found: a pattern that matches nothing yet must not turn everything round.
    types: settings.types ?? (settings.queries ? "used" : "all"),
    unions,
  });
}

/** The settings of an SDK, with modules of the app as the SDK's folder sees them. */
function ownSettings(project: Project, sdk: string, folder: string): Omit<TypescriptSettings, "imports"> {
  const { imports: _imports, formats, ...settings } = project.configuration.sdks[sdk]?.settings ?? {};
  if (!formats) return settings;
  const seen = Object.entries(formats).map(([format, own]): [string, OwnFormat] => {
    const path = relative(folder, resolve(project.root, own.from)).replaceAll("\\", "/");
    return [format, { ...own, from: path.startsWith(".") ? path : `./${path}` }];
  });
  return { ...settings, formats: Object.fromEntries(seen) };
}

/** TypeScript types of the GraphQL scalars that a contract's configuration maps. */
export function mappedScalars(settings: ContractConfiguration | undefined): Map<string, string> {
  const entries = Object.entries(settings?.scalars ?? {}).flatMap(([scalar, { typescript }]): [string, string][] =>
    typescript === undefined || typescript === "unknown" ? [] : [[scalar, typescript]],
  );
  return new Map(entries);
}

/** What the configuration could say about a contract, as far as the contract shows it. */
function proposals(project: Project, plan: RestPlan, settings: ContractConfiguration): Problem[] {
  const place = { document: project.configName, pointer: `/contracts/${plan.name}` };
  const found: Problem[] = [];
  const paged = plan.calls.filter((call) => call.paging?.isRecognised === true);
  const [first] = paged;
  if (first?.paging) {
    const id = first.operation.operationId ?? first.name;
    const shown = paged
      .slice(0, mostShown)
      .map((call) => `\`${call.name}\` (${pagingWords[call.paging?.by ?? "cursor"]})`);
    const more = paged.length > mostShown ? ` and ${String(paged.length - mostShown)} more` : "";
    const count = paged.length === 1 ? "1 call seems" : `${String(paged.length)} calls seem`;
    found.push(
      problem(
        "contract.pages",
        `${count} to answer page by page: ${shown.join(", ")}${more}. \`${first.paging.name}\` goes through all items.`,
        { level: "note", place, hint: `If one does not, say \`pages: { ${id}: off }\`.` },
      ),
    );
  }
  for (const { name, count } of sharedParameters(plan.calls)) {
    if (settings.standing?.includes(name)) continue;
    found.push(
      problem("contract.standing", `${String(count)} of ${String(plan.calls.length)} operations take \`${name}\`.`, {
        level: "note",
        place,
        hint: `\`standing: [${name}]\` lets the connection supply it once.`,
      }),
    );
  }
  return found;
}

/** What an SDK could do better, and does not by itself. */
function losses(project: Project, plan: ContractPlan, sdk: string): Problem[] {
  const place = { document: project.configName, pointer: `/contracts/${plan.name}` };
  const listed = (names: readonly string[]): string => {
    const more = names.length > mostShown ? ` and ${String(names.length - mostShown)} more` : "";
    return names.slice(0, mostShown).join(", ") + more;
  };
  const found: Problem[] = [];
  const wide = project.configuration.sdks[sdk]?.settings?.int64 === undefined ? wideIntegers(plan) : [];
  if (wide.length > 0) {
    const count = wide.length === 1 ? "1 place holds" : `${String(wide.length)} places hold`;
    const message = `${count} integers of 64 bits, which become \`number\` in \`${sdk}\`: ${listed(wide.map((name) => `\`${name}\``))}.`;
    const hint = "Say `int64: bigint` (or `text`) in the SDK's `settings`, or `int64: number` when it is meant.";
    found.push(problem("contract.integers", message, { level: "note", place, hint }));
  }
  const { clashes } = plan;
  if (clashes.length > 0) {
    const names = clashes.map(({ name, wanted }) => `\`${name}\` instead of \`${wanted}\``);
    const count = clashes.length === 1 ? "1 name is" : `${String(clashes.length)} names are`;
    const hint =
      plan.protocol === "graphql"
        ? "Rename the query or fragment in its document; a type of the schema keeps its name."
        : "Another `operationId` or schema name in the contract gives a better one; `skip` leaves an operation out.";
    found.push(
      problem("contract.names", `${count} wanted by something else too, and made apart: ${listed(names)}.`, {
        level: "note",
        place,
        hint,
      }),
    );
  }
  return found;
}

const mostShown = 5;

const pagingWords = {
  cursor: "by a cursor",
  offset: "by how many items to pass over",
  number: "by page number",
  link: "by links",
} as const;

/** Words of the configuration that match nothing in the contract; they would silently do nothing. */
function misspelt(project: Project, name: string, contract: Contract, settings: ContractConfiguration): Problem[] {
  const place = (key: string) => ({ document: project.configName, pointer: `/contracts/${name}/${key}` });
  const warn = (key: string, message: string, hint: string | undefined): Problem =>
    problem("config.invalid", message, {
      level: "warning",
      place: place(key),
      ...(hint === undefined ? {} : { hint }),
    });
  if (contract.protocol === "rest") {
    const { only, skip, standing, pages, queries } = settings;
    // Nothing is said that could match nothing.
    if (!only && !skip && !standing && !pages && !queries) return [];
    const { unmatched } = selectOperations(contract.operations, settings);
    const operationIds = contract.operations.flatMap(({ operationId }) => operationId ?? []);
    const parameters = new Set(
      contract.operations.flatMap((operation) => operation.parameters.map((parameter) => parameter.name)),
    );
    const ids = contract.operations.flatMap((operation) => [
      ...(operation.operationId === undefined ? [] : [operation.operationId]),
      ...operation.tags,
    ]);
    return [
      ...unmatched.map((pattern) =>
        warn(
          only?.includes(pattern) ? "only" : "skip",
          `\`${pattern}\` matches no operation of \`${name}\`.`,
          didYouMean(pattern, ids),
        ),
      ),
      ...(standing ?? [])
        .filter((each) => !parameters.has(each))
        .map((each) =>
          warn("standing", `No operation of \`${name}\` has a parameter \`${each}\`.`, didYouMean(each, parameters)),
        ),
      ...Object.keys(pages ?? {})
        .filter((each) => !operationIds.includes(each))
        .map((each) =>
          warn("pages", `\`${name}\` has no operation with the id \`${each}\`.`, didYouMean(each, operationIds)),
        ),
      ...(queries
        ? [warn("queries", `\`${name}\` is a REST contract, and query documents are for GraphQL.`, undefined)]
        : []),
    ];
  }
  const scalars = [...contract.types.values()].filter((type) => type.role === "scalar").map((type) => type.name);
  return Object.keys(settings.scalars ?? {})
    .filter((scalar) => !scalars.includes(scalar))
    .map((scalar) => warn("scalars", `\`${name}\` has no scalar \`${scalar}\`.`, didYouMean(scalar, scalars)));
}
