import type { EmbeddedTexts } from "../../core/graphql/documents/embeddedTexts.js";
import { isHostFile, tagsOf } from "../../core/languages/hostFiles.js";
import type { SourceText } from "../../core/problem/place.js";
import type { Problem } from "../../core/problem/problem.js";
import { sortedBy } from "../../core/text/sortedBy.js";
import { haltOr } from "../project/allOrHalt.js";
import { Halt } from "../project/halt.js";
import { build, version } from "../files/packageFolder.js";
import { outputFolder } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import { contractTexts, partText, queryTexts, type QueryTexts } from "../sources/sources.js";
import { hashAside, hashOf } from "../files/textFile.js";

type Part = ReturnType<typeof partText>;

/** Reads each text of a project once, however many SDKs use it. */
export class ProjectTexts {
  private readonly contracts = new Map<string, SourceText[]>();
  private readonly documents = new Map<string, QueryTexts>();
  private readonly parts = new Map<string, Map<string, Part>>();
  /** The GraphQL in source files, by contract. */
  private readonly embedded = new Map<string, Map<SourceText, EmbeddedTexts>>();
  private readonly hashes = new Map<SourceText, Promise<string>>();
  /** Texts that places refer to and that are not files, by name. */
  private readonly derived = new Map<string, string>();

  /**
   * @param knownParts the names of the documents that each contract referred to when it was last read. Their content
   * decides whether anything changed, before anything is parsed
   */
  constructor(
    readonly project: OpenedProject,
    knownParts: ReadonlyMap<string, readonly string[]> = new Map(),
  ) {
    for (const [contract, names] of knownParts) for (const name of names) this.addPart(contract, name);
  }

  /** Returns the texts of a contract: its source, then the documents that it refers to. */
  contract(name: string): SourceText[] {
    const known = this.contracts.get(name) ?? contractTexts(this.project, name);
    this.contracts.set(name, known);
    const given = new Set(known.map(({ document }) => document));
    const parts = [...(this.parts.get(name)?.values() ?? [])].flatMap((part) => ("text" in part ? [part] : []));
    const referred = parts.filter(({ document }) => !given.has(document));
    return [...known, ...sortedBy(referred, ({ document }) => document)];
  }

  /** Returns whether the texts of a contract are available. */
  has(name: string): boolean {
    return !(haltOr(() => this.contract(name)) instanceof Halt);
  }

  /**
   * Finds the schemas and queries inside source files. It must run before `schema` and `queries`. The parser for source
   * code is loaded only if there is something to parse.
   */
  async readHosts(contracts: Iterable<string>): Promise<void> {
    for (const name of contracts) {
      const known = this.embedded.get(name) ?? new Map<SourceText, EmbeddedTexts>();
      this.embedded.set(name, known);
      const tags = tagsOf(name, this.project.configuration.contracts[name]?.tags);
      // Reading this contract reports that it is not available. The others continue.
      if (!this.has(name)) continue;
      const schemas = this.contract(name).filter((source) => isHostFile(source.document) && !known.has(source));
      const queries = this.queryDocuments(name).texts.filter(
        (source) => isHostFile(source.document) && !known.has(source),
      );
      if (schemas.length + queries.length === 0) continue;
      const { loadEmbedded } = await import("../../core/languages/index.js");
      const { embeddedQueries, embeddedSchemas } = await loadEmbedded();
      for (const source of schemas) known.set(source, embeddedSchemas(source));
      for (const source of queries) known.set(source, embeddedQueries(source, tags));
    }
  }

  /** Returns the texts of a contract as they are read, with those inside source files in place of the files. */
  schema(name: string): { readonly texts: readonly SourceText[]; readonly problems: readonly Problem[] } {
    return this.inside(name, this.contract(name));
  }

  /** Returns the query documents of a contract, with those inside source files in place of the files. */
  queries(name: string): { readonly texts: readonly SourceText[]; readonly problems: readonly Problem[] } {
    return this.inside(name, this.queryDocuments(name).texts);
  }

  private inside(
    name: string,
    sources: readonly SourceText[],
  ): { readonly texts: readonly SourceText[]; readonly problems: readonly Problem[] } {
    const found = sources.map((source) => {
      if (!isHostFile(source.document)) return { texts: [source], problems: [] };
      const embedded = this.embedded.get(name)?.get(source);
      if (!embedded) throw new Error(`The source files of ${name} were not looked into.`);
      return embedded;
    });
    return { texts: found.flatMap(({ texts }) => texts), problems: found.flatMap(({ problems }) => problems) };
  }

  /** Stores texts that were made while reading, for showing places in them. */
  addDerived(texts: readonly SourceText[]): void {
    for (const { document, text } of texts) this.derived.set(document, text);
  }

  /** Forgets the documents that a contract referred to, so that they are found again. */
  forgetParts(contract: string): void {
    this.parts.delete(contract);
  }

  /** Forgets the texts of contracts, after copies were replaced. */
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

  /** Returns the names of the documents that a contract refers to, sorted, also of those that are not available. */
  partNames(contract: string): string[] {
    return [...(this.parts.get(contract)?.keys() ?? [])].sort();
  }

  /** Returns why documents are not available, by name. */
  unobtainable(contract: string): Map<string, string> {
    const parts = [...(this.parts.get(contract) ?? [])];
    return new Map(parts.flatMap(([name, part]) => ("why" in part ? [[name, part.why] as const] : [])));
  }

  /** Returns remote documents that may be fetched and were not fetched yet. */
  unfetched(contract: string): string[] {
    const parts = [...(this.parts.get(contract) ?? [])];
    return parts.flatMap(([name, part]) => ("why" in part && part.isRemote === true ? [name] : []));
  }

  /** Returns the files with query documents, as they are on disk. */
  queryDocuments(name: string): QueryTexts {
    const known = this.documents.get(name) ?? queryTexts(this.project, name);
    this.documents.set(name, known);
    return known;
  }

  /** Returns a text's hash, computed once however many SDKs use it. */
  hashOf(source: SourceText): Promise<string> {
    const known = this.hashes.get(source) ?? hashAside(source.text);
    this.hashes.set(source, known);
    return known;
  }

  /** Begins to hash the texts of contracts on another thread, so that the hashes are there when they are needed. */
  hashAhead(contracts: readonly string[]): void {
    for (const name of contracts) for (const source of this.contract(name)) void this.hashOf(source);
  }

  /** Returns the text of a document by its name in problems. */
  find(document: string): string | undefined {
    if (document === this.project.configName) return this.project.configText;
    const derived = this.derived.get(document);
    if (derived !== undefined) return derived;
    const parts = [...this.parts.values()].flatMap((each) => [...each.values()]).filter((part) => "text" in part);
    const all = [parts, ...this.contracts.values(), ...[...this.documents.values()].map(({ texts }) => texts)].flat();
    return all.find((each) => each.document === document)?.text;
  }
}

/**
 * Returns a hash of all inputs of an SDK: the tool and its runtime sources, the configuration of the SDK and its
 * contracts, every text, and the app's compiler settings. Equal hashes give equal bytes.
 *
 * @throws Error if there is no SDK with the name
 */
export async function inputsHash(
  project: OpenedProject,
  sdk: string,
  { texts, partial }: { readonly texts: ProjectTexts; readonly partial: boolean },
): Promise<string> {
  const configuration = project.configuration.sdks[sdk];
  if (!configuration) throw new Error(`There is no SDK ${sdk}.`);
  const { language, settings = {} } = configuration;
  const folder = outputFolder(project, sdk, configuration.into);
  const tools = await project.session.tools(language);
  const parts: unknown[] = [
    version,
    build,
    configuration,
    partial,
    tools.settled(settings, project.root, folder),
    project.session.runtime(language, tools).hash,
  ];
  const hashes = (list: readonly SourceText[]): Promise<string[][]> =>
    Promise.all(list.map(async (source) => [source.document, await texts.hashOf(source)]));
  for (const name of [...configuration.covers].sort())
    parts.push([
      name,
      project.configuration.contracts[name],
      await hashes(texts.contract(name)),
      texts.partNames(name),
      await hashes(texts.queryDocuments(name).texts),
    ]);
  return hashOf(JSON.stringify(parts));
}
