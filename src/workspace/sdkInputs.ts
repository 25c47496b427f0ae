import type { SourceText } from "../core/problem/place.js";
import { sortedBy } from "../core/text/sortedBy.js";
import { importEnding } from "./importEnding.js";
import { build, runtimeSources, version } from "./packageFolder.js";
import { outputFolder, type Project } from "./project.js";
import { contractTexts, partText, queryTexts, type QueryTexts } from "./sources.js";
import { hashOf } from "./textFile.js";

type Part = ReturnType<typeof partText>;

/** Reads each text of a project once, however many SDKs use it. */
export class ProjectTexts {
  private readonly contracts = new Map<string, SourceText[]>();
  private readonly queries = new Map<string, QueryTexts>();
  private readonly parts = new Map<string, Map<string, Part>>();

  /**
   * @param knownParts names of the documents that each contract referred to when it was last read; what they hold
   * decides whether anything changed, before anything is parsed
   */
  constructor(
    readonly project: Project,
    knownParts: ReadonlyMap<string, readonly string[]> = new Map(),
  ) {
    for (const [contract, names] of knownParts) for (const name of names) this.addPart(contract, name);
  }

  /** The texts of a contract: what it comes from, then the documents it was found to refer to. */
  contract(name: string): SourceText[] {
    const known = this.contracts.get(name) ?? contractTexts(this.project, name);
    this.contracts.set(name, known);
    const given = new Set(known.map(({ document }) => document));
    const parts = [...(this.parts.get(name)?.values() ?? [])].flatMap((part) => ("text" in part ? [part] : []));
    const referred = parts.filter(({ document }) => !given.has(document));
    return [...known, ...sortedBy(referred, ({ document }) => document)];
  }

  /** Forgets what a contract referred to, to find it anew. */
  forgetParts(contract: string): void {
    this.parts.delete(contract);
  }

  /** Forgets what was read, after copies were replaced. */
  forgetContracts(): void {
    this.contracts.clear();
    this.parts.clear();
  }

  /** Looks for a document that a contract refers to. */
  addPart(contract: string, name: string): void {
    const known = this.parts.get(contract) ?? new Map<string, Part>();
    known.set(name, partText(this.project, contract, name));
    this.parts.set(contract, known);
  }

  /** Names of the documents a contract refers to, sorted, also of those that cannot be had. */
  partNames(contract: string): string[] {
    return [...(this.parts.get(contract)?.keys() ?? [])].sort();
  }

  /** Why documents cannot be had, by name. */
  unobtainable(contract: string): Map<string, string> {
    const parts = [...(this.parts.get(contract) ?? [])];
    return new Map(parts.flatMap(([name, part]) => ("why" in part ? [[name, part.why] as const] : [])));
  }

  /** Remote documents that may be fetched and were not yet. */
  unfetched(contract: string): string[] {
    const parts = [...(this.parts.get(contract) ?? [])];
    return parts.flatMap(([name, part]) => ("why" in part && part.isRemote === true ? [name] : []));
  }

  queryDocuments(name: string): QueryTexts {
    const known = this.queries.get(name) ?? queryTexts(this.project, name);
    this.queries.set(name, known);
    return known;
  }

  /** The text of a document by the name problems use. */
  find(document: string): string | undefined {
    if (document === this.project.configName) return this.project.configText;
    const parts = [...this.parts.values()].flatMap((each) => [...each.values()]).filter((part) => "text" in part);
    const all = [parts, ...this.contracts.values(), ...[...this.queries.values()].map(({ texts }) => texts)].flat();
    return all.find((each) => each.document === document)?.text;
  }
}

const sourceHashes = new WeakMap<SourceText, string>();

/** A text's hash, computed once however many SDKs it goes into. */
function sourceHash(source: SourceText): string {
  const known = sourceHashes.get(source) ?? hashOf(source.text);
  sourceHashes.set(source, known);
  return known;
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
      list.map((source) => [source.document, sourceHash(source)]);
    parts.push([
      name,
      project.configuration.contracts[name],
      hashes(texts.contract(name)),
      texts.partNames(name),
      hashes(texts.queryDocuments(name).texts),
    ]);
  }
  return hashOf(JSON.stringify(parts));
}
