import type { LoweredSdk } from "../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { Printing } from "../language.js";
import { contractContext, inFile, type ContractContext, type RestContext } from "./contractContext.js";
import { packageSegment, usualNamespace } from "./identifiers.js";
import { fileText } from "./kotlinFile.js";
import { printConnection } from "./printConnection.js";
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
    for (const [name, text] of printFolder(context)) files.set(`${packageSegment(contract.plan.name)}/${name}`, text);
  }
  for (const [file, source] of printing.runtime)
    files.set(`wire/${file}`, source.replace(/\r\n/g, "\n").replace(/^package wire$/m, `package ${namespace}.wire`));
  return new Map(sortedBy(files, ([path]) => path));
}

function printFolder(context: ContractContext): Map<string, string> {
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
  }
  for (const [name, text] of printTypes(context)) files.set(`${name}.kt`, text);
  const tuples = printTuples(context);
  if (tuples !== "") files.set(`${context.names.contract.tuples}.kt`, tuples);
  return files;
}
