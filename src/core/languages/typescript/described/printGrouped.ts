import { apartFrom } from "../apartFrom.js";
import type { ContractContext } from "../contractContext.js";
import { comment, docComment } from "../names/escape.js";

/** One call in the object of all calls. */
export interface GroupedCall {
  /** Its file, without extension. */
  readonly file: string;
  /** The types in its signature that are imported from there. */
  readonly types: readonly string[];
  readonly name: string;
  /** The function for it. */
  readonly perform: string;
  /** Type parameters of the function, with their brackets; "" if there are none. */
  readonly generics?: string;
  readonly argsType: string;
  readonly argsNeeded: boolean;
  readonly summary?: string | undefined;
  readonly deprecated?: string | undefined;
}

/** Prints the function that returns all calls of a contract as methods. */
export function printGrouped(
  { contract, names: { contract: names }, isTranspiled }: ContractContext,
  calls: readonly GroupedCall[],
): string {
  const members = calls.map((call) => {
    const perform = apartFrom(call.perform, [names.grouped]);
    const { summary, deprecated } = call;
    const words = { paragraphs: [summary ?? ""], ...(deprecated === undefined ? {} : { deprecated }) };
    const doc = docComment(words, "    ");
    const answer = isTranspiled ? `: ReturnType<typeof ${perform}${(call.generics ?? "") === "" ? "" : "<Type>"}>` : "";
    return `${doc}    ${call.name}: ${call.generics ?? ""}(args${call.argsNeeded ? "" : "?"}: ${call.argsType}, options?: wire.CallOptions)${answer} => ${perform}(connection, args, options),\n`;
  });
  return (
    comment(
      `All calls of ${contract.plan.title} as methods of one object, for completion after a dot.\nAn app that imports single calls ships only those.`,
    ) + `export function ${names.grouped}(connection: ${names.connection}) {\n  return {\n${members.join("")}  };\n}\n`
  );
}
