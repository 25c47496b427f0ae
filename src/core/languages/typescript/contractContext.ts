import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { typescriptNames, type TypescriptNames } from "./names/names.js";
import { noUses, type Uses } from "./moduleUses.js";
import type { TypePrinter } from "./types/printType.js";

/** One contract of an SDK, with everything that printing a part of it needs. */
export interface ContractContext<Contract extends LoweredContract = LoweredContract> {
  readonly contract: Contract;
  readonly names: TypescriptNames;
  /** Prints types without recording the names in them. */
  readonly printer: TypePrinter;
  /** The extension of relative imports. */
  readonly ending: "" | ".js";
  /** Whether the modules become JavaScript. Then each declares the types of its exports, and samples show no types. */
  readonly isTranspiled: boolean;
}

export type RestContext = ContractContext<LoweredRest>;
export type GraphqlContext = ContractContext<LoweredGraphql>;

/**
 * Creates the context.
 *
 * @param scalars the TypeScript type of each mapped GraphQL scalar
 */
export function contractContext(
  contract: LoweredContract,
  scalars: ReadonlyMap<string, string>,
  { ending, isTranspiled }: Pick<ContractContext, "ending" | "isTranspiled">,
): ContractContext {
  const names = typescriptNames(contract.plan);
  const isGraphql = contract.protocol === "graphql";
  const printer: TypePrinter = {
    types: contract.types,
    names: names.types,
    scalars,
    settings: contract.settings,
    hasWholeFiles: isGraphql,
    sealed: isGraphql ? contract.sealed : new Map(),
    uses: noUses,
  };
  return { contract, names, printer, ending, isTranspiled };
}

/** Returns the same context for a module that records the names in it. */
export function within<Contract extends LoweredContract>(
  context: ContractContext<Contract>,
  uses: Uses,
): ContractContext<Contract> {
  return { ...context, printer: { ...context.printer, uses } };
}
