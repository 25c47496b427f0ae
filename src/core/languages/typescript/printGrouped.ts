import type { ContractPlan } from "../../sdk/sdkPlan.js";
import { docComment } from "./escape.js";
import { contractNames } from "./identifiers.js";
import { deprecation } from "./printShapes.js";

/** One call as the grouped object shows it. */
export interface GroupedCall {
  readonly name: string;
  /** The function behind it. */
  readonly perform: string;
  /** Type parameters of the function, with their brackets; "" when there are none. */
  readonly generics?: string;
  readonly argsType: string;
  readonly argsNeeded: boolean;
  readonly summary?: string | undefined;
  readonly deprecated?: string | undefined;
}

/** Prints the function that offers all calls of a contract behind a dot. */
export function printGrouped(plan: ContractPlan, calls: readonly GroupedCall[]): string {
  const names = contractNames(plan.name);
  const members = calls.map((call) => {
    const doc = docComment([call.summary, deprecation(call.deprecated)], "    ");
    return `${doc}    ${call.name}: ${call.generics ?? ""}(args${call.argsNeeded ? "" : "?"}: ${call.argsType}, options?: wire.CallOptions) => ${call.perform}(connection, args, options),\n`;
  });
  return (
    docComment([
      `All calls of ${plan.title}, bound to a connection. For people who find out by typing a dot;\nan app that imports single calls ships only those.`,
    ]) + `export function ${names.grouped}(connection: ${names.connection}) {\n  return {\n${members.join("")}  };\n}\n`
  );
}
