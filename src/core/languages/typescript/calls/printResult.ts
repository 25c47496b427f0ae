import type { ContractContext } from "../contractContext.js";

/** Whether calls return their failures instead of throwing them. */
export function returnsFailures({ contract }: Pick<ContractContext, "contract">): boolean {
  return contract.settings.failures === "return";
}

/** What a function gives that answers once, or item by item. */
export function resultType(
  answer: string,
  isStream: boolean,
  { failure, context }: { readonly failure: string; readonly context: ContractContext },
): string {
  const given = returnsFailures(context) ? `wire.Outcome<${answer}, ${failure}>` : answer;
  return isStream ? `AsyncGenerator<${given}, void, undefined>` : `Promise<${given}>`;
}
