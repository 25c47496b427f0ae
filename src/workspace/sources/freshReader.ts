import { isUrl } from "../../core/rest/documentNames.js";
import type { SourceText } from "../../core/problem/place.js";
import type { Problem } from "../../core/problem/problem.js";
import { publicAddress } from "../../core/text/secrets.js";
import { isAllowedHost } from "../configuration/allowedHosts.js";
import { ContractReader } from "./contractReader.js";
import { copyPath } from "./copies.js";
import { fetchCopy, remoteSources } from "./obtainCopies.js";
import type { OpenedProject } from "../project/openProject.js";
import { displayPath } from "../project/project.js";
import { ProjectTexts } from "../generate/sdkInputs.js";

/** A contract as its servers have it now. Nothing of it is saved. */
export interface FreshReader {
  readonly reader: ContractReader;
  /** Whether something was fetched from a server. */
  readonly isFetched: boolean;
  /** Warnings about documents that are not available, so that the copy is used. */
  readonly problems: readonly Problem[];
}

/** Fetches a contract from its servers, with all documents that it refers to. @throws Halt if it cannot be read */
export async function freshReader(project: OpenedProject, contract: string): Promise<FreshReader> {
  const settings = project.configuration.contracts[contract];
  const fetched = new Map<string | undefined, SourceText>();
  const tried = new Set<string | undefined>();
  const problems: Problem[] = [];
  const ask = async (address: string | undefined): Promise<void> => {
    tried.add(address);
    const found = await fetchCopy(project, contract, { address, known: undefined });
    const place = { document: project.configName, pointer: `/contracts/${contract}/from` };
    if ("problem" in found)
      problems.push({ ...found.problem, level: "warning", places: [place], why: "Rhema compares its copy instead." });
    if (!("text" in found)) return;
    const { text } = found;
    const document = `${displayPath(project, copyPath(project, contract, { address, text }))} (new)`;
    fetched.set(address, { document, text, ...(address === undefined ? {} : { base: publicAddress(address) }) });
  };
  for (const address of settings ? remoteSources(settings) : []) await ask(address);
  const isAsked = (name: string): boolean =>
    settings !== undefined && URL.canParse(name) && isAllowedHost(settings, name);
  const unsaved = {
    find: (name: string, address: string | undefined) => (name === contract ? fetched.get(address) : undefined),
  };
  const texts = new ProjectTexts({ ...project, unsaved });
  await texts.readHosts([contract]);
  const reader = new ContractReader(texts);
  for (;;) {
    reader.read(contract);
    const wanted = texts.partNames(contract).filter((name) => isUrl(name) && isAsked(name) && !tried.has(name));
    if (wanted.length === 0) return { reader, isFetched: fetched.size > 0, problems };
    for (const name of wanted) await ask(name);
    reader.forget(contract);
  }
}
