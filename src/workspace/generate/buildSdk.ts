import type { Contract, SetAside } from "../../core/contract/model.js";
import { schemaCopy } from "../../core/graphql/schemaCopy.js";
import type { QueryReading } from "../../core/graphql/documents/readQueryDocuments.js";
import { settledSettings } from "../../core/languages/settings.js";
import { printSdk } from "../../core/languages/printSdk.js";
import type { Problem } from "../../core/problem/problem.js";
import { counted } from "../../core/report/paint.js";
import type { ContractPlan } from "../../core/sdk/sdkPlan.js";
import type { SdkConfiguration } from "../configuration/configuration.js";
import type { ContractReader } from "../sources/contractReader.js";
import { pinTexts } from "./pins.js";
import { mappedScalars } from "./planContract.js";
import { outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import { losses, proposals, unfitPages } from "./sdkNotes.js";
import type { LoadedLanguage } from "../project/session.js";
import { hashOf } from "../files/textFile.js";
import { unmatchedWords } from "../configuration/unmatchedWords.js";

/** The result of one contract for an SDK. */
export interface BuiltContract {
  readonly contract: Contract;
  readonly plan: ContractPlan;
  readonly queries: QueryReading | undefined;
  readonly setAside: readonly SetAside[];
}

/** An SDK in memory: its files, its pin, and the problems. */
export interface BuiltSdk {
  readonly files: ReadonlyMap<string, string>;
  /** The SHA-256 of each file. */
  readonly hashes: ReadonlyMap<string, string>;
  readonly pins: ReadonlyMap<string, string>;
  readonly contracts: readonly BuiltContract[];
  readonly problems: readonly Problem[];
  /** Errors in query documents. Without `--partial`, the SDK is not written. */
  readonly queryErrors: readonly Problem[];
}

/**
 * Reads, plans and prints one SDK. Writes nothing.
 *
 * @throws Halt (unreadable) if nothing in one of its contracts can be read
 */
export async function buildSdk(project: OpenedProject, sdk: string, reader: ContractReader): Promise<BuiltSdk> {
  const configuration = sdkNamed(project, sdk);
  const loaded = await project.session.language(configuration.language);
  const building = new Building(project, sdk, configuration, loaded);
  const contracts = [...configuration.covers].sort().map((name) => building.contract(name, reader));
  const files = building.print(contracts);
  project.trace(() => `printed ${counted(files.size, "file")} of the SDK ${sdk}`);
  const { pins, problems, queryErrors, folder } = building;
  return { files, hashes: project.session.made.of(folder, files), pins, contracts, problems, queryErrors };
}

function sdkNamed(project: OpenedProject, sdk: string): SdkConfiguration {
  const configuration = project.configuration.sdks[sdk];
  if (!configuration) throw new Error(`There is no SDK ${sdk}.`);
  return configuration;
}

/** An SDK that is being built, with its problems so far. */
class Building {
  readonly problems: Problem[] = [];
  readonly queryErrors: Problem[] = [];
  readonly pins = new Map<string, string>();
  readonly folder: string;
  private readonly schemas = new Map<string, string>();

  constructor(
    private readonly project: OpenedProject,
    private readonly sdk: string,
    private readonly configuration: SdkConfiguration,
    private readonly loaded: LoadedLanguage,
  ) {
    this.folder = outputFolder(project, sdk, configuration.into);
  }

  contract(name: string, reader: ContractReader): BuiltContract {
    const { project, sdk, configuration } = this;
    const side = reader.side(name);
    const { reading, contract } = side;
    project.trace(() => `read the contract ${name} into the model`);
    this.note(reading.problems);
    const configured = project.configuration.contracts[name] ?? { from: [] };
    const { language, settings = {} } = configuration;
    const { language: printer } = this.loaded;
    const shared = settledSettings(printer.settings, settings);
    const texts = reader.texts.queries(name);
    const queries = side.queries(texts.texts, shared.fragments);
    const inQueries = [...texts.problems, ...(queries?.problems ?? [])];
    this.note(reader.texts.queryDocuments(name).problems);
    for (const each of inQueries) (each.level === "error" ? this.queryErrors : this.problems).push(each);
    this.note(unmatchedWords(project, name, { contract, settings: configured }));
    for (const [path, text] of pinTexts(project, sdk, { reading, queries })) this.pins.set(path, text);
    if (queries) project.trace(() => `typed ${counted(queries.operations.length, "query", "queries")} of ${name}`);
    const plan = side.plan(texts.texts, shared.fragments, {
      configured,
      plannedFor: {
        language,
        settings: { ...settings, unions: shared.unions },
      },
    });
    project.trace(() => `planned ${counted(plan.calls.length, "call")} of ${name}`);
    if (settings.schema === true && reading.schema) this.schemas.set(name, schemaCopy(reading.schema));
    const names = printer.names(plan);
    if (plan.protocol === "rest") {
      this.note(unfitPages(project, plan, configured));
      this.note(proposals(project, plan, { settings: configured, names }));
    }
    this.note(losses(project, plan, { sdk, names, int64: printer.settings.shared.int64 }));
    return { contract, plan, queries, setAside: contract.setAside };
  }

  /** A contract may have more problems than a function can have arguments. */
  private note(problems: readonly Problem[]): void {
    for (const each of problems) this.problems.push(each);
  }

  print(contracts: readonly BuiltContract[]): Map<string, string> {
    const { project, configuration, loaded, folder } = this;
    const { language, covers } = configuration;
    const settings = loaded.tools.settled(configuration.settings ?? {}, project.root, folder);
    const plan = { name: this.sdk, contracts: contracts.map(({ plan }) => plan) };
    return printSdk(loaded.language, plan, {
      settings,
      runtime: project.session.runtime(language, loaded.tools).files,
      scalars: new Map(covers.map((name) => [name, mappedScalars(project.configuration.contracts[name], language)])),
      schemas: this.schemas,
      hash: hashOf,
    });
  }
}
