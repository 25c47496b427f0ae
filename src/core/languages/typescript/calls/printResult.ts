import type { ContractContext } from "../contractContext.js";

/** Returns whether calls return their failures instead of throwing them. */
export function returnsFailures({ contract }: Pick<ContractContext, "contract">): boolean {
  return contract.settings.failures === "return";
}

/** Returns the return type of a function that responds once or item by item. */
export function resultType(
  answer: string,
  isStream: boolean,
  { failure, context }: { readonly failure: string; readonly context: ContractContext },
): string {
  const given = returnsFailures(context) ? `wire.Outcome<${answer}, ${failure}>` : answer;
  return isStream ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`;
}
