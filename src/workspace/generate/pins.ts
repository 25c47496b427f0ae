import { existsSync } from "node:fs";
import { join } from "node:path";
import type { Contract } from "../../core/contract/model.js";
import type { QueryDocuments } from "../../core/graphql/documents/queryModel.js";
import { pinnedData } from "../../core/rest/pinnedData.js";
import { visibleJson } from "../../core/text/visible.js";
import { isData } from "../../core/text/parseData.js";
import type { SourceText } from "../../core/problem/place.js";
import { displayPath, stateFolder, type Project } from "../project/project.js";
import { readText } from "../files/textFile.js";

/**
 * Returns the texts of an SDK's pin for one contract, by path in the project: the contract itself in an open format
 * (OpenAPI as JSON, GraphQL as schema text), and the operations that the SDK was generated with.
 */
export function pinTexts(
  project: Project,
  sdk: string,
  {
    reading,
    queries,
  }: {
    readonly reading: { readonly contract: Contract; readonly raw?: unknown; readonly texts?: readonly SourceText[] };
    readonly queries: QueryDocuments | undefined;
  },
): Map<string, string> {
  const { contract, raw, texts = [] } = reading;
  const base = pinBase(project, sdk, contract.name);
  if (contract.protocol === "rest") {
    return new Map([
      [displayPath(project, `${base}.openapi.json`), `${visibleJson(isData(raw) ? pinnedData(raw) : null, 1)}\n`],
    ]);
  }
  const schema = texts.map(({ text }) => `${text.trim()}\n`).join("\n");
  return new Map([
    [displayPath(project, `${base}.graphql`), schema],
    [displayPath(project, `${base}.operations.graphql`), operationsText(queries)],
  ]);
}

/** Every definition once: several operations send the same fragment. */
function operationsText(queries: QueryDocuments | undefined): string {
  const definitions = new Map<string, string>();
  for (const operation of queries?.operations ?? []) {
    for (const definition of operation.text.split(/\n\n(?=fragment )/)) {
      const name = /^(?:query|mutation|subscription|fragment) (\w+)/.exec(definition)?.[0] ?? definition;
      if (!definitions.has(name)) definitions.set(name, definition);
    }
  }
  return [...definitions.values()].map((text) => `${text}\n`).join("\n");
}

/**
 * Reads the pinned contract of an SDK.
 *
 * @returns undefined before the first run
 */
export function readPin(project: Pick<Project, "root">, sdk: string, contract: string): SourceText | undefined {
  const path = pinPaths(project, sdk, contract).contracts.find((candidate) =>
    existsSync(join(project.root, candidate)),
  );
  return path === undefined ? undefined : { document: path, text: readText(join(project.root, path)) };
}

/** Returns the paths of an SDK's pin for a contract, by protocol, relative to the project. */
export function pinPaths(
  project: Pick<Project, "root">,
  sdk: string,
  contract: string,
): { readonly contracts: readonly string[]; readonly operations: string } {
  const base = displayPath(project, pinBase(project, sdk, contract));
  return { contracts: [`${base}.openapi.json`, `${base}.graphql`], operations: `${base}.operations.graphql` };
}

function pinBase(project: Pick<Project, "root">, sdk: string, contract: string): string {
  return join(stateFolder(project), "pins", sdk, contract);
}
