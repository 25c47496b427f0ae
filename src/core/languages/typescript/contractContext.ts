import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { typescriptNames, type TypescriptNames } from "./names/names.js";
import { noUses, type Uses } from "./moduleUses.js";
import type { TypePrinter } from "./types/printType.js";

/** One contract of an SDK, with everything that printing any part of it needs. */
export interface ContractContext<Contract extends LoweredContract = LoweredContract> {
  readonly contract: Contract;
  readonly names: TypescriptNames;
  /** Prints types, and tells nobody what it names. */
  readonly printer: TypePrinter;
  /** Of relative imports. */
  readonly ending: "" | ".js";
  /** The modules become JavaScript: each says the types of all that it exports, and samples show none. */
  readonly isTranspiled: boolean;
}

export type RestContext = ContractContext<LoweredRest>;
export type GraphqlContext = ContractContext<LoweredGraphql>;

/** @param scalars TypeScript type of each GraphQL scalar that the configuration maps */
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

/** The same context, for a module that is told what it names. */
export function within<Contract extends LoweredContract>(
  context: ContractContext<Contract>,
  uses: Uses,
): ContractContext<Contract> {
  return { ...context, printer: { ...context.printer, uses } };
}
