import type { LoweredContract, LoweredSdk } from "../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { Printing } from "../language.js";
import {
  contractContext,
  inFile,
  type ContractContext,
  type GraphqlContext,
  type RestContext,
} from "./contractContext.js";
import { operationId } from "../../graphql/documents/operationId.js";
import { graphqlPage, restPage } from "../pages/callPages.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { pageSpelling } from "./pageSpelling.js";
import { printReadme } from "./printReadme.js";
import { buildFiles } from "./buildLines.js";
import { packageSegment, usualNamespace } from "./names/identifiers.js";
import { fileText } from "./kotlinFile.js";
import { printGraphqlCall } from "./calls/printGraphqlCall.js";
import { printConnection, printGraphqlConnection } from "./calls/printConnection.js";
import { printFakes } from "./testing/printFakes.js";
import { printSamples } from "./testing/printSamples.js";
import { printRestCall } from "./calls/printCall.js";
import { printWebhooks } from "./calls/printWebhooks.js";
import { printTuples, printTypes } from "./types/printTypes.js";
import type { KotlinSettings } from "./settings.js";

/**
 * Prints an SDK as Kotlin.
 *
 * @returns the text of every file, by its path inside the SDK's folder
 */
export function printKotlinSdk(sdk: LoweredSdk, printing: Printing, settings: KotlinSettings): Map<string, string> {
  const files = new Map<string, string>();
  const namespace = settings.namespace ?? usualNamespace(sdk.name);
  const contexts = sdk.contracts.map((contract) => contextOf(contract, namespace, { printing, settings }));
  for (const { contract } of contexts) {
    const schema = printing.schemas?.get(contract.plan.name);
    if (schema !== undefined) files.set(`${packageSegment(contract.plan.name)}/schema.graphql`, schema);
  }
  for (const context of contexts)
    for (const [name, text] of printFolder(context, settings, printing.hash))
      files.set(`${packageSegment(context.contract.plan.name)}/${name}`, text);
  files.set("README.md", printReadme(sdk.name, contexts, settings));
  for (const [file, source] of printing.runtime)
    files.set(`wire/${file}`, source.replace(/\r\n/g, "\n").replace(/^package wire$/m, `package ${namespace}.wire`));
  return new Map(sortedBy(settings.package === true ? asModule(files, namespace, sdk.name) : files, ([path]) => path));
}

function contextOf(
  contract: LoweredContract,
  namespace: string,
  { printing, settings }: { readonly printing: Pick<Printing, "scalars">; readonly settings: KotlinSettings },
): ContractContext {
  return contractContext(contract, namespace, {
    scalars: printing.scalars.get(contract.plan.name) ?? new Map<string, string>(),
    formats: settings.formats ?? {},
  });
}

/** Returns how Kotlin spells the calls of a contract in documentation. */
export function kotlinSpelling(
  contract: LoweredContract,
  printing: Pick<Printing, "scalars">,
  settings: KotlinSettings,
): PageSpelling {
  return pageSpelling(contextOf(contract, settings.namespace ?? "", { printing, settings }));
}

/** The same files as a module: sources where build tools look for them, with the build files. */
function asModule(files: ReadonlyMap<string, string>, namespace: string, sdk: string): [string, string][] {
  const placed = [...files].map(([path, text]): [string, string] => [
    path.endsWith(".kt") ? `src/main/kotlin/${path}` : path,
    text,
  ]);
  return [...placed, ...buildFiles(namespace, sdk)];
}

function printFolder(context: ContractContext, settings: KotlinSettings, hash: Printing["hash"]): Map<string, string> {
  const files = new Map<string, string>();
  const { contract } = context;
  const spelling = pageSpelling(context);
  if (contract.protocol === "rest") {
    const rest: RestContext = { ...context, contract };
    files.set(`${context.names.contract.connection}.kt`, printConnection(rest));
    if (contract.plan.sent.length > 0) {
      const inside = inFile(rest);
      const parts = printWebhooks(inside);
      files.set(
        `${context.names.contract.webhooks}.kt`,
        fileText({ package: context.package, uses: inside.uses, parts }),
      );
    }
    for (const file of contract.files) {
      files.set(`${file.file}.md`, restPage(file, contract, spelling));
      const inside = inFile(rest);
      const parts = file.calls.flatMap((lowered) => printRestCall(lowered, inside));
      const facade = context.names.facade(file.file);
      const isDeprecated = parts.some((part) => part.includes("@Deprecated"));
      files.set(
        `${facade}.kt`,
        fileText({
          package: context.package,
          uses: inside.uses,
          parts,
          facade,
          ...(isDeprecated ? { suppresses: ["DEPRECATION"] } : {}),
        }),
      );
    }
  } else {
    const graphql: GraphqlContext = { ...context, contract };
    const manifest: object[] = [];
    files.set(`${context.names.contract.connection}.kt`, printGraphqlConnection(graphql));
    for (const lowered of contract.calls) {
      const inside = inFile(graphql);
      const facade = context.names.facade(lowered.call.name);
      const { name, root: kind, text } = lowered.call.operation;
      const digest = settings.manifest === true ? hash?.(text) : undefined;
      const id = digest === undefined ? undefined : operationId(digest);
      if (id !== undefined) manifest.push({ name, kind, hash: id, text });
      const parts = printGraphqlCall(lowered, { ...graphql, uses: inside.uses }, id);
      files.set(`${lowered.file}.md`, graphqlPage(lowered, contract, spelling));
      files.set(`${facade}.kt`, fileText({ package: context.package, uses: inside.uses, parts, facade }));
    }
    if (settings.manifest === true)
      files.set("operations.json", `${JSON.stringify({ operations: manifest }, null, 2)}\n`);
  }
  if (contract.settings.testing) {
    const inside = inFile(context);
    const parts = [
      ...printFakes(contract.protocol === "rest" ? { ...inside, contract } : { ...inside, contract }),
      ...printSamples(inside),
    ];
    const name = context.names.contract.testing;
    files.set(
      `${name}.kt`,
      fileText({
        package: context.package,
        uses: inside.uses,
        parts,
        facade: name,
        suppresses: ["DEPRECATION", "OVERRIDE_DEPRECATION"],
      }),
    );
  }
  for (const [name, text] of printTypes(context)) files.set(`${name}.kt`, text);
  const tuples = printTuples(context);
  if (tuples !== "") files.set(`${context.names.contract.tuples}.kt`, tuples);
  return files;
}
