import type { LoweredContract, LoweredSdk } from "../../sdk/lower/loweredSdk.js";
import { operationId } from "../../graphql/documents/operationId.js";
import { NameScope } from "../../sdk/nameScope.js";
import { sortedBy } from "../../text/sortedBy.js";
import { pascalCase } from "../../text/words.js";
import type { Printing } from "../language.js";
import { graphqlPage, restPage } from "../pages/callPages.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { contractContext, type ContractContext, type GraphqlContext, type RestContext } from "./contractContext.js";
import { packageFile } from "./packageFile.js";
import { pageSpelling } from "./pageSpelling.js";
import { printConnection, printGraphqlConnection } from "./calls/printConnection.js";
import { printFakes } from "./testing/printFakes.js";
import { printFormats } from "./types/printFormats.js";
import { printRestCall } from "./calls/printCall.js";
import { printGraphqlCall } from "./calls/printGraphqlCall.js";
import { printReadme } from "./printReadme.js";
import { printSamples } from "./testing/printSamples.js";
import { printTuples, printTypes } from "./types/printTypes.js";
import { printWebhooks } from "./calls/printWebhooks.js";
import type { SwiftSettings } from "./settings.js";
import { indented } from "../indented.js";
import { fileText } from "./swiftFile.js";

/**
 * Prints an SDK as Swift.
 *
 * @returns the text of every file, by its path inside the SDK's folder
 */
export function printSwiftSdk(sdk: LoweredSdk, printing: Printing, settings: SwiftSettings): Map<string, string> {
  const files = new Map<string, string>();
  const contexts = sdk.contracts.map((contract) => contextOf(contract, printing, settings));
  for (const context of contexts)
    for (const [name, text] of printFolder(context, settings, printing)) files.set(`${context.space}/${name}`, text);
  files.set("README.md", printReadme(sdk.name, contexts, settings));
  const prefix = settings.prefix ?? "";
  for (const [file, source] of printing.runtime)
    files.set(`${prefix}Wire/${prefix}Wire.${file === "Wire.swift" ? "swift" : file}`, runtimeText(source, settings));
  const placed = settings.package === true ? asPackage(files, sdk.name) : files;
  return new Map(sortedBy(placed, ([path]) => path));
}

/** The same files as a package: sources where its target looks for them, with the package file. */
function asPackage(files: ReadonlyMap<string, string>, sdk: string): Map<string, string> {
  const placed = [...files].map(([path, text]): [string, string] => [
    path.endsWith(".swift") ? `Sources/${path}` : path,
    text,
  ]);
  return new Map([...placed, ["Package.swift", packageFile(sdk)]]);
}

/** Returns how Swift spells the calls of a contract in documentation. */
export function swiftSpelling(
  contract: LoweredContract,
  printing: Pick<Printing, "scalars">,
  settings: SwiftSettings,
): PageSpelling {
  return pageSpelling(contextOf(contract, printing, settings));
}

function contextOf(
  contract: LoweredContract,
  printing: Pick<Printing, "scalars">,
  settings: SwiftSettings,
): ContractContext {
  return contractContext(contract, settings, printing.scalars.get(contract.plan.name) ?? new Map<string, string>());
}

/** A source of the runtime in an SDK: public only in a package, and in a namespace of the SDK. */
function runtimeText(source: string, { prefix, package: isPackage }: SwiftSettings): string {
  const text = source.replace(/\r\n/g, "\n");
  const named = prefix === undefined ? text : text.replace(/\bWire\b/g, `${prefix}Wire`);
  return isPackage === true ? named : named.replace(/^( *)public /gm, "$1");
}

/** The files of a contract's folder, by path. */
class FolderFiles {
  readonly files = new Map<string, string>();
  // File names are unique in a target, so every name contains the namespace. Files that are not for a type begin with a
  // character that no type name has.
  private readonly scope = new NameScope();

  constructor(private readonly space: string) {}

  /** Adds a source that is not for a type, unless it is empty. */
  add(name: string, text: string): void {
    if (text !== "") this.files.set(`${this.space}+${this.scope.claim(name)}.swift`, text);
  }
}

function printFolder(context: ContractContext, settings: SwiftSettings, printing: Printing): Map<string, string> {
  const { contract, space } = context;
  const folder = new FolderFiles(space);
  const { files } = folder;
  const schema = printing.schemas?.get(contract.plan.name);
  if (schema !== undefined) files.set("schema.graphql", schema);
  if (contract.protocol === "rest") addRestFiles(folder, { ...context, contract });
  else addGraphqlFiles(folder, { ...context, contract }, settings.manifest === true ? printing.hash : undefined);
  if (contract.settings.testing) {
    const fakes = printFakes(contract.protocol === "rest" ? { ...context, contract } : { ...context, contract });
    folder.add("Testing", fileText([...fakes, ...printSamples(context)]));
  }
  for (const [name, text] of printTypes(context))
    if (name === "") folder.add("Types", text);
    else files.set(`${space}.${name}.swift`, text);
  folder.add("Tuples", printTuples(context));
  folder.add("Formats", printFormats(context));
  return files;
}

function addRestFiles(folder: FolderFiles, context: RestContext): void {
  const { contract, space } = context;
  folder.files.set(`${space}.swift`, printConnection(context));
  const webhooks = printWebhooks(context);
  if (webhooks.length > 0)
    folder.add("Webhooks", fileText([`extension ${space} {\n${indented(webhooks.join("\n"))}}\n`]));
  for (const file of contract.files) {
    folder.files.set(`${file.file}.md`, restPage(file, contract, pageSpelling(context)));
    folder.add(`${pascalCase(file.file) || "Own"}Calls`, printCallsFile(file.calls, context));
  }
}

function printCallsFile(lowered: RestContext["contract"]["files"][number]["calls"], context: RestContext): string {
  const { space, connection } = context;
  const calls = lowered.map((each) => printRestCall(each, context));
  const inside = (what: string, parts: readonly string[]): string[] =>
    parts.length === 0 ? [] : [`extension ${what} {\n${parts.join("\n")}}\n`];
  const nested = (part: "types" | "readings" | "forms"): string[] =>
    calls.flatMap((call) => call[part]).map((each) => indented(each));
  return fileText([
    ...inside(
      connection,
      calls.flatMap(({ functions }) => functions),
    ),
    ...inside(space, nested("types")),
    ...inside(`${space}.Readings`, nested("readings")),
    ...inside(`${space}.Forms`, nested("forms")),
  ]);
}

/** @param hash returns the ids of operations; absent if the SDK has no manifest */
function addGraphqlFiles(folder: FolderFiles, context: GraphqlContext, hash: Printing["hash"] | undefined): void {
  const { contract, space, connection } = context;
  const manifest: object[] = [];
  folder.files.set(`${space}.swift`, printGraphqlConnection(context));
  for (const lowered of contract.calls) {
    const { name, root: kind, text } = lowered.call.operation;
    const digest = hash?.(text);
    const id = digest === undefined ? undefined : operationId(digest);
    if (id !== undefined) manifest.push({ name, kind, hash: id, text });
    const { call, failure, operation } = printGraphqlCall(lowered, context, id);
    folder.files.set(`${lowered.file}.md`, graphqlPage(lowered, contract, pageSpelling(context)));
    folder.add(
      `${pascalCase(lowered.file) || "Own"}Call`,
      fileText([
        `extension ${connection} {\n${call}}\n`,
        `extension ${space} {\n${indented(failure)}}\n`,
        `extension ${space}.Operations {\n${operation}}\n`,
      ]),
    );
  }
  if (hash) folder.files.set("operations.json", `${JSON.stringify({ operations: manifest }, null, 2)}\n`);
}
