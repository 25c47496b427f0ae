import type { Contract } from "../../core/contract/model.js";
import { rootFields } from "../../core/graphql/documents/draftDocument.js";
import { readQueryDocuments } from "../../core/graphql/documents/readQueryDocuments.js";
import type { Problem } from "../../core/problem/problem.js";
import { counted } from "../../core/report/paint.js";
import { ContractReader } from "../sources/contractReader.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import { obtainCopies } from "../sources/obtainCopies.js";
import type { OpenedProject } from "../project/openProject.js";
import type { Whereabouts } from "../project/whereabouts.js";
import { ProjectTexts } from "../generate/sdkInputs.js";

/** The result of trying a contract. */
export interface TriedContract {
  readonly name: string;
  /** Its configuration. */
  readonly settings: ContractConfiguration;
  readonly protocol: Contract["protocol"];
  readonly title: string;
  /** A description in a few words: "REST 1.4.0: 15 operations, 29 types". */
  readonly about: string;
  /** The number of query operations. */
  readonly queries: number;
  /** The custom scalars of the schema. */
  readonly scalars: readonly string[];
  readonly setAside: number;
  readonly problems: readonly Problem[];
}

/**
 * Reads a contract that is not configured yet, and fetches it from a URL or a command.
 *
 * @param queries the patterns of query documents, for a schema
 * @throws Halt if it is not available or cannot be read
 */
export async function tryContract(
  where: Whereabouts,
  name: string,
  { settings, queries }: { readonly settings: ContractConfiguration; readonly queries: readonly string[] },
): Promise<TriedContract> {
  const project = projectWith(where, name, settings);
  const lacking = (await obtainCopies(project, [name], true)).lacking.get(name);
  if (lacking) throw lacking;
  const texts = new ProjectTexts(project);
  await texts.readHosts([name]);
  const { contract, schema, problems } = new ContractReader(texts).read(name);
  const found = { name, title: contract.title, setAside: contract.setAside.length, problems };
  if (contract.protocol === "rest" || !schema) {
    const operations = contract.protocol === "rest" ? contract.operations.length : 0;
    const about = `REST ${contract.version}: ${counted(operations, "operation")}, ${counted(contract.types.size, "type")}`;
    return { ...found, settings, protocol: "rest", about, queries: 0, scalars: [] };
  }
  const whole = { ...settings, queries };
  const asking = new ProjectTexts(projectWith(where, name, whole));
  await asking.readHosts([name]);
  const { operations } = readQueryDocuments(schema, asking.queries(name).texts);
  const scalars = [...contract.types.values()].filter(({ role }) => role === "scalar").map((type) => type.name);
  const about = `GraphQL: ${counted(rootFields(schema).length, "root field")}, ${counted(contract.types.size, "type")}`;
  return { ...found, settings: whole, protocol: "graphql", about, queries: operations.length, scalars };
}

function projectWith(where: Whereabouts, name: string, settings: ContractConfiguration): OpenedProject {
  const configuration = { contracts: { [name]: settings }, sdks: {} };
  const { folder: root, environment, trace, secrets, session } = where;
  return {
    root,
    environment,
    trace,
    secrets,
    session,
    configName: "rhema.yaml",
    configText: "",
    configuration,
    problems: [],
  };
}
