import type { LoweredSdk } from "../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { Printing } from "../language.js";
import {
  contractContext,
  inFile,
  type ContractContext,
  type GraphqlContext,
  type RestContext,
} from "./contractContext.js";
import { packageSegment, usualNamespace } from "./identifiers.js";
import { fileText } from "./kotlinFile.js";
import { printGraphqlCall } from "./printGraphqlCall.js";
import { printConnection, printGraphqlConnection } from "./printConnection.js";
import { printRestCall } from "./printCall.js";
import { printTuples, printTypes } from "./printTypes.js";
import type { KotlinSettings } from "./settings.js";

/** Prints an SDK as Kotlin: the text of every file by its path inside the SDK's folder. */
export function printKotlinSdk(sdk: LoweredSdk, printing: Printing, settings: KotlinSettings): Map<string, string> {
  const files = new Map<string, string>();
  const namespace = settings.namespace ?? usualNamespace(sdk.name);
  for (const contract of sdk.contracts) {
    const context = contractContext(contract, namespace, {
      scalars: printing.scalars.get(contract.plan.name) ?? new Map<string, string>(),
      formats: settings.formats ?? {},
    });
    for (const [name, text] of printFolder(context, printing.hash))
      files.set(`${packageSegment(contract.plan.name)}/${name}`, text);
  }
  for (const [file, source] of printing.runtime)
    files.set(`wire/${file}`, source.replace(/\r\n/g, "\n").replace(/^package wire$/m, `package ${namespace}.wire`));
  return new Map(sortedBy(files, ([path]) => path));
}

function printFolder(context: ContractContext, hash: Printing["hash"]): Map<string, string> {
  const files = new Map<string, string>();
  const { contract } = context;
  if (contract.protocol === "rest") {
    const rest: RestContext = { ...context, contract };
    files.set(`${context.names.contract.connection}.kt`, printConnection(rest));
    for (const file of contract.files) {
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
    files.set(`${context.names.contract.connection}.kt`, printGraphqlConnection(graphql));
    for (const lowered of contract.calls) {
      const inside = inFile(graphql);
      const facade = context.names.facade(lowered.call.name);
      const parts = printGraphqlCall(lowered, { ...graphql, uses: inside.uses }, hash?.(lowered.call.operation.text));
      files.set(`${facade}.kt`, fileText({ package: context.package, uses: inside.uses, parts, facade }));
    }
  }
  for (const [name, text] of printTypes(context)) files.set(`${name}.kt`, text);
  const tuples = printTuples(context);
  if (tuples !== "") files.set(`${context.names.contract.tuples}.kt`, tuples);
  return files;
}
