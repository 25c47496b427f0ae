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

/** Prints an SDK as Swift: the text of every file by its path inside the SDK's folder. */
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

/** The same files as a package: sources where its target looks for them, and what builds them. */
function asPackage(files: ReadonlyMap<string, string>, sdk: string): Map<string, string> {
  const placed = [...files].map(([path, text]): [string, string] => [
    path.endsWith(".swift") ? `Sources/${path}` : path,
    text,
  ]);
  return new Map([...placed, ["Package.swift", packageFile(sdk)]]);
}

/** How Swift spells the calls of a contract where they are shown. */
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

/** A source of the runtime as an SDK has it: public in a package alone, and in a namespace of the SDK's. */
function runtimeText(source: string, { prefix, package: isPackage }: SwiftSettings): string {
  const text = source.replace(/\r\n/g, "\n");
  const named = prefix === undefined ? text : text.replace(/\bWire\b/g, `${prefix}Wire`);
  return isPackage === true ? named : named.replace(/^( *)public /gm, "$1");
}

function printFolder(
  context: ContractContext,
  settings: SwiftSettings,
  { hash, schemas }: Printing,
): Map<string, string> {
  const files = new Map<string, string>();
  const { contract, space, connection } = context;
  const spelling = pageSpelling(context);
  const schema = schemas?.get(contract.plan.name);
  if (schema !== undefined) files.set("schema.graphql", schema);
  // A target has no two files of one name, so every file is called by the namespace too. What is no type has a sign before
  // it that no type's name has.
  const scope = new NameScope();
  const add = (name: string, text: string): void => {
    if (text !== "") files.set(`${space}+${scope.claim(name)}.swift`, text);
  };
  if (contract.protocol === "rest") {
    const rest: RestContext = { ...context, contract };
    files.set(`${space}.swift`, printConnection(rest));
    const webhooks = printWebhooks(rest);
    if (webhooks.length > 0) add("Webhooks", fileText([`extension ${space} {\n${indented(webhooks.join("\n"))}}\n`]));
    for (const file of contract.files) {
      files.set(`${file.file}.md`, restPage(file, contract, spelling));
      const calls = file.calls.map((lowered) => printRestCall(lowered, rest));
      const inside = (what: string, parts: readonly string[]): string[] =>
        parts.length === 0 ? [] : [`extension ${what} {\n${parts.join("\n")}}\n`];
      add(
        `${pascalCase(file.file) || "Own"}Calls`,
        fileText([
          ...inside(
            connection,
            calls.flatMap(({ functions }) => functions),
          ),
          ...inside(
            space,
            calls.flatMap(({ types }) => types).map((each) => indented(each)),
          ),
          ...inside(
            `${space}.Readings`,
            calls.flatMap(({ readings }) => readings).map((each) => indented(each)),
          ),
          ...inside(
            `${space}.Forms`,
            calls.flatMap(({ forms }) => forms).map((each) => indented(each)),
          ),
        ]),
      );
    }
  } else {
    const graphql: GraphqlContext = { ...context, contract };
    const manifest: object[] = [];
    files.set(`${space}.swift`, printGraphqlConnection(graphql));
    for (const lowered of contract.calls) {
      const { name, root: kind, text } = lowered.call.operation;
      const digest = settings.manifest === true ? hash?.(text) : undefined;
      const id = digest === undefined ? undefined : operationId(digest);
      if (id !== undefined) manifest.push({ name, kind, hash: id, text });
      const { call, failure, operation } = printGraphqlCall(lowered, graphql, id);
      files.set(`${lowered.file}.md`, graphqlPage(lowered, contract, spelling));
      add(
        `${pascalCase(lowered.file) || "Own"}Call`,
        fileText([
          `extension ${connection} {\n${call}}\n`,
          `extension ${space} {\n${indented(failure)}}\n`,
          `extension ${space}.Operations {\n${operation}}\n`,
        ]),
      );
    }
    if (settings.manifest === true)
      files.set("operations.json", `${JSON.stringify({ operations: manifest }, null, 2)}\n`);
  }
  if (contract.settings.testing) {
    const fakes = printFakes(contract.protocol === "rest" ? { ...context, contract } : { ...context, contract });
    add("Testing", fileText([...fakes, ...printSamples(context)]));
  }
  for (const [name, text] of printTypes(context))
    if (name === "") add("Types", text);
    else files.set(`${space}.${name}.swift`, text);
  add("Tuples", printTuples(context));
  add("Formats", printFormats(context));
  return files;
}
