import { nameless, operationLabel, type Contract, type Server } from "../../core/contract/model.js";
import type { HandWritten, RequestedOperation } from "../../core/outline/handWritten.js";
import { inlineQueries } from "../../core/outline/inlineQueries.js";
import { readQueryDocuments } from "../../core/graphql/documents/readQueryDocuments.js";
import { isHostFile } from "../../core/languages/hostFiles.js";
import { loadEmbedded } from "../../core/languages/index.js";
import { ShownTexts } from "../../core/problem/shownTexts.js";
import { serverUrl } from "../../core/sdk/lower/serverAddress.js";
import { planRest } from "../../core/sdk/planRest.js";
import type { ContractReading } from "../../core/contract/contractReading.js";
import { sortedBy } from "../../core/text/sortedBy.js";
import { allOrHalt } from "../project/allOrHalt.js";
import { ContractReader } from "../sources/contractReader.js";
import type { HandWrittenScanner, SdkPart } from "../languages/languageTools.js";
import { displayPath } from "../project/project.js";
import type { OpenedProject } from "../project/openProject.js";
import { ProjectTexts } from "../generate/sdkInputs.js";
import { sdkPart } from "./sdkPart.js";
import type { LoadedLanguage } from "../project/session.js";
import { sourceText } from "../sources/sources.js";

/** The hand-written code of an app. */
export interface Replaceable {
  readonly found: readonly HandWritten[];
  /** SDKs in a language whose source is not searched for it. */
  readonly unknown: readonly string[];
  /** SDKs that are not written yet, so that there are no types to compare with. */
  readonly unwritten: readonly string[];
  readonly texts: ShownTexts;
}

/** One SDK, as far as it is compared with. */
interface ComparedSdk {
  readonly loaded: LoadedLanguage;
  readonly parts: readonly SdkPart[];
}

/**
 * Returns requests, types and queries of the app's own that an SDK of the project has too.
 *
 * @param contracts the names of contracts
 * @throws Halt if a contract cannot be read
 */
export async function replaceable(project: OpenedProject, contracts: readonly string[]): Promise<Replaceable> {
  const texts = new ProjectTexts(project);
  await texts.readHosts(contracts);
  const reader = new ContractReader(texts);
  allOrHalt(contracts, (name) => reader.read(name));
  const readings = contracts.map((name) => reader.read(name));
  const found: HandWritten[] = [];
  const unknown: string[] = [];
  const unwritten: string[] = [];
  for (const [sdk, { language, covers }] of Object.entries(project.configuration.sdks)) {
    const loaded = await project.session.language(language);
    const covered = readings.filter(({ contract }) => covers.includes(contract.name));
    const scanner = loaded.tools.handWritten;
    if (covered.length === 0) continue;
    if (!scanner) {
      unknown.push(sdk);
      continue;
    }
    const compared = {
      loaded,
      parts: covered.map(({ contract }) =>
        sdkPart(project, { sdk, contract: contract.name, language: loaded.language }),
      ),
    };
    const { uses } = loaded.tools;
    if (uses && !compared.parts.every((part) => uses.isWritten(part))) unwritten.push(sdk);
    const operations = covered.flatMap(({ contract }) => operationsOf(project, contract, compared));
    found.push(...(await scanner.find(project, compared.parts, operations)));
    for (const reading of covered) found.push(...(await queriesOf(project, reading, { scanner, compared, texts })));
  }
  const shown = new ShownTexts((document) => texts.find(document) ?? sourceText(project, document));
  return { found: onceEach(found), unknown, unwritten, texts: shown };
}

function operationsOf(project: OpenedProject, contract: Contract, { loaded }: ComparedSdk): RequestedOperation[] {
  if (contract.protocol !== "rest") return [];
  const plan = planRest(contract, project.configuration.contracts[contract.name] ?? {});
  const names = loaded.language.names(plan);
  const addresses = (servers: readonly Server[]): string[] => servers.map(serverUrl);
  return plan.calls.map((call) => ({
    contract: contract.name,
    label: operationLabel(call.operation),
    method: call.operation.method,
    path: nameless(call.operation.path),
    servers: addresses(call.operation.servers.length > 0 ? call.operation.servers : contract.servers),
    call: names.call(call).call,
  }));
}

interface QueryScan {
  readonly scanner: HandWrittenScanner;
  readonly compared: ComparedSdk;
  readonly texts: ProjectTexts;
}

/** Queries in source that are valid for the schema and not part of the SDK. */
async function queriesOf(
  project: OpenedProject,
  { contract, schema }: ContractReading & { readonly contract: Contract },
  { scanner, compared, texts }: QueryScan,
): Promise<HandWritten[]> {
  if (!schema) return [];
  const { literalQueries } = await loadEmbedded();
  const documents = texts.queries(contract.name).texts;
  const typed = new Set(documents.map(({ document, text }) => `${document} ${String(text.search(/\S/))}`));
  const calls = new Set(readQueryDocuments(schema, documents).operations.map(({ name }) => name));
  const part = compared.parts.find((each) => each.contract === contract.name);
  const from = part && displayPath(project, part.folder);
  return scanner
    .sources(project)
    .filter(({ document }) => isHostFile(document))
    .flatMap((source) =>
      inlineQueries(schema, literalQueries(source))
        .filter(({ offset }) => !typed.has(`${source.document} ${String(offset)}`))
        .map(({ label, name, offset, length }): HandWritten => {
          const isKnown = name !== undefined && calls.has(name);
          const [call] = isKnown ? compared.loaded.language.operationNames(name) : [];
          return {
            kind: "query",
            contract: contract.name,
            place: { document: source.document, offset, length },
            what: label,
            instead: call ?? "",
            ...(call === undefined || from === undefined ? {} : { from }),
          };
        }),
    );
}

/** Each finding once, although several SDKs have it; sorted by place. */
function onceEach(found: readonly HandWritten[]): HandWritten[] {
  const byPlace = new Map(found.map((each) => [`${each.kind} ${JSON.stringify(each.place)}`, each]));
  return sortedBy(byPlace.values(), ({ place }) => {
    const offset = "offset" in place ? place.offset : 0;
    return `${place.document} ${String(offset).padStart(9, "0")}`;
  });
}
