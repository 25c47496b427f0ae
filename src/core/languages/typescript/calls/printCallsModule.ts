import type { LoweredContract } from "../../../sdk/lower/loweredSdk.js";
import { within, type ContractContext } from "../contractContext.js";
import { header, moduleText, type Import } from "../moduleText.js";
import { ModuleUses } from "../moduleUses.js";

/**
 * Prints a module of calls, with the imports of all names in it.
 *
 * @param parts prints its content
 * @param own the types that it declares itself
 */
export function callsModule<Contract extends LoweredContract>(
  context: ContractContext<Contract>,
  parts: (inside: ContractContext<Contract>) => readonly string[],
  own: { readonly types?: readonly string[]; readonly imports?: readonly Import[] } = {},
): string {
  const uses = new ModuleUses();
  uses.module("wire", true);
  const texts = parts(within(context, uses));
  const imports: Import[] = [
    { from: `../connect${context.ending}`, types: [context.names.contract.connection] },
    ...uses.without(own.types ?? []).imports(context.ending, ".."),
    ...(own.imports ?? []),
  ];
  return moduleText(header, imports, texts);
}
