import type { RecordShape } from "../../contract/model.js";
import { directions, type Direction } from "../../sdk/lower/values/directions.js";
import { fragmentTypes, type FragmentTypes } from "../../sdk/lower/fragmentTypes.js";
import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { recordsWithFiles } from "../../sdk/lower/values/recordsWithFiles.js";
import { packageSegment } from "./names/identifiers.js";
import { FileUses } from "./kotlinFile.js";
import { kotlinNames, type KotlinNames } from "./names/names.js";
import type { KotlinSettings } from "./settings.js";
import { mappedType } from "../mappedType.js";
import { Nullness } from "../nullness.js";
import { wrappedAliases } from "../../sdk/lower/values/wrappedAliases.js";
import { directUnions, type DirectUnions } from "./types/directUnions.js";

/** One contract of an SDK, with everything that printing a part of it needs. */
export interface ContractContext<Contract extends LoweredContract = LoweredContract> {
  readonly contract: Contract;
  readonly names: KotlinNames;
  /** The package of this contract's part, and of the runtime. */
  readonly package: string;
  readonly runtime: string;
  /** The configured type of each mapped GraphQL scalar. */
  readonly scalars: ReadonlyMap<string, string>;
  readonly formats: NonNullable<KotlinSettings["formats"]>;
  /** The directions of values. */
  readonly directions: ReadonlyMap<string, Direction>;
  /** The directions with code for them: a fake connection writes what the app reads. */
  readonly forms: ReadonlyMap<string, Direction>;
  /** Names of types that would contain themselves. Each becomes a class. */
  readonly wrapped: ReadonlySet<string>;
  readonly unions: DirectUnions;
  readonly nullness: Nullness;
  /** Records with files below them, whose forms collect the files. */
  readonly filed: ReadonlySet<RecordShape>;
  /** The types of fragments. Each is an interface. */
  readonly fragments: FragmentTypes;
  /** The numbers of positions of the used tuples. */
  readonly tuples: Set<string>;
}

export type RestContext = ContractContext<LoweredRest>;
export type GraphqlContext = ContractContext<LoweredGraphql>;

/** A contract's part that is printed into one file. */
export interface FileContext<Contract extends LoweredContract = LoweredContract> extends ContractContext<Contract> {
  readonly uses: FileUses;
}

/**
 * Creates the context.
 *
 * @param namespace the package of the SDK
 */
export function contractContext(
  contract: LoweredContract,
  namespace: string,
  { scalars, formats }: Pick<ContractContext, "scalars" | "formats">,
): ContractContext {
  const { plan } = contract;
  const known = directions(plan);
  const wrapped = wrappedAliases(contract.types);
  return {
    contract,
    names: kotlinNames(plan),
    package: `${namespace}.${packageSegment(plan.name)}`,
    runtime: `${namespace}.wire`,
    scalars,
    formats,
    directions: known,
    forms: contract.settings.testing ? written(known) : known,
    wrapped,
    nullness: new Nullness({
      types: contract.types,
      wrapped,
      isJson: (shape) => mappedType(shape, scalars, "JsonElement") === "JsonElement",
    }),
    filed: recordsWithFiles(contract.types),
    unions: directUnions(contract.types, plan.protocol === "graphql"),
    fragments: fragmentTypes(plan),
    tuples: new Set(),
  };
}

function written(known: ReadonlyMap<string, Direction>): Map<string, Direction> {
  return new Map([...known].map(([id, { isRead, isWritten }]) => [id, { isRead, isWritten: isWritten || isRead }]));
}

/** Returns the same context for a file of its own. */
export function inFile<Contract extends LoweredContract>(context: ContractContext<Contract>): FileContext<Contract> {
  return { ...context, uses: new FileUses(context.runtime) };
}
