import type { SourceText } from "../core/problem/place.js";
import { importEnding } from "./importEnding.js";
import { build, runtimeSources, version } from "./packageFolder.js";
import { outputFolder, type Project } from "./project.js";
import { contractTexts, queryTexts, type QueryTexts } from "./sources.js";
import { hashOf } from "./textFile.js";

/** Reads each text of a project once, however many SDKs use it. */
export class ProjectTexts {
  private readonly contracts = new Map<string, SourceText[]>();
  private readonly queries = new Map<string, QueryTexts>();

  constructor(readonly project: Project) {}

  contract(name: string): SourceText[] {
    const known = this.contracts.get(name) ?? contractTexts(this.project, name);
    this.contracts.set(name, known);
    return known;
  }

  queryDocuments(name: string): QueryTexts {
    const known = this.queries.get(name) ?? queryTexts(this.project, name);
    this.queries.set(name, known);
    return known;
  }

  /** The text of a document by the name problems use. */
  find(document: string): string | undefined {
    if (document === this.project.configName) return this.project.configText;
    const all = [...this.contracts.values(), ...[...this.queries.values()].map(({ texts }) => texts)].flat();
    return all.find((each) => each.document === document)?.text;
  }
}

/**
 * A hash over everything an SDK is made from: the tool and its runtime sources, the SDK's and its contracts'
 * configuration, every text, and what the app's compiler settings ask for. Equal hashes give equal bytes.
 */
export function inputsHash(project: Project, sdk: string, texts: ProjectTexts, partial: boolean): string {
  const configuration = project.configuration.sdks[sdk];
  if (!configuration) throw new Error(`There is no SDK ${sdk}.`);
  const folder = outputFolder(project, sdk, configuration.into);
  const parts: unknown[] = [
    version,
    build,
    configuration,
    partial,
    importEnding(project.root, folder),
    [...runtimeSources(configuration.language)],
  ];
  for (const name of [...configuration.covers].sort()) {
    const hashes = (list: readonly SourceText[]): string[][] =>
      list.map(({ document, text }) => [document, hashOf(text)]);
    parts.push([
      name,
      project.configuration.contracts[name],
      hashes(texts.contract(name)),
      hashes(texts.queryDocuments(name).texts),
    ]);
  }
  return hashOf(JSON.stringify(parts));
}
