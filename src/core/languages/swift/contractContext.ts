import type { RecordShape } from "../../contract/model.js";
import { directions, type Direction } from "../../sdk/lower/values/directions.js";
import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { recordsWithFiles } from "../../sdk/lower/values/recordsWithFiles.js";
import { mappedType } from "../mappedType.js";
import { Nullness } from "../nullness.js";
import { wrappedAliases } from "../../sdk/lower/values/wrappedAliases.js";
import { fragmentTypes } from "../../sdk/lower/fragmentTypes.js";
import { boxed, type Boxed } from "./types/boxed.js";
import { swiftNames, type SwiftNames } from "./names/names.js";
import type { SwiftSettings } from "./settings.js";

/** One contract of an SDK, with everything that printing a part of it needs. */
export interface ContractContext<Contract extends LoweredContract = LoweredContract> {
  readonly contract: Contract;
  readonly names: SwiftNames;
  /** The namespace of this contract's part, and that of the runtime. */
  readonly space: string;
  readonly wire: string;
  readonly connection: string;
  /** The access modifier of the SDK's interface: "public " in a package, "" in an app's own target. */
  readonly access: string;
  /** The configured type of each mapped GraphQL scalar. */
  readonly scalars: ReadonlyMap<string, string>;
  readonly formats: NonNullable<SwiftSettings["formats"]>;
  /** The directions of values. */
  readonly directions: ReadonlyMap<string, Direction>;
  /** The directions with code for them: a fake connection writes what the app reads. */
  readonly forms: ReadonlyMap<string, Direction>;
  /** Names of types that would contain themselves. Each becomes a struct. */
  readonly wrapped: ReadonlySet<string>;
  readonly boxed: Boxed;
  readonly nullness: Nullness;
  /** Records with files below them, whose forms collect the files. */
  readonly filed: ReadonlySet<RecordShape>;
  /** The ids of the types inside fragments that each value also has, by the id of a record or union. */
  readonly views: ReadonlyMap<string, ReadonlySet<string>>;
  /** The used tuples, by the names of their readers and writers. */
  readonly tuples: Map<string, UsedTuple>;
}

/** A kind of tuple in a contract. */
export interface UsedTuple {
  readonly type: string;
  readonly count: number;
  /** The number of required positions. */
  readonly needed: number;
  readonly hasRest: boolean;
}

export type RestContext = ContractContext<LoweredRest>;
export type GraphqlContext = ContractContext<LoweredGraphql>;

/** Creates the context of a contract for all printers. */
export function contractContext(
  contract: LoweredContract,
  { prefix = "", package: isPackage, formats = {} }: SwiftSettings,
  scalars: ReadonlyMap<string, string>,
): ContractContext {
  const { plan } = contract;
  const names = swiftNames(plan);
  const known = directions(plan);
  const wrapped = wrappedAliases(contract.types);
  return {
    contract,
    names,
    space: prefix + names.contract.namespace,
    wire: `${prefix}Wire`,
    connection: prefix + names.contract.connection,
    access: isPackage === true ? "public " : "",
    scalars,
    formats,
    directions: known,
    forms: contract.settings.testing ? written(known) : known,
    wrapped,
    nullness: new Nullness({
      types: contract.types,
      wrapped,
      isJson: (shape) => mappedType(shape, scalars, "JSON") === "JSON",
    }),
    boxed: boxed(contract.types, wrapped),
    filed: recordsWithFiles(contract.types),
    views: allViews(fragmentTypes(plan).of),
    tuples: new Map(),
  };
}

/** The types of values, and all types that follow from them. */
function allViews(of: ReadonlyMap<string, ReadonlySet<string>>): Map<string, ReadonlySet<string>> {
  return new Map(
    [...of].map(([id, direct]) => {
      const all = new Set(direct);
      // A set that grows during the loop is read to its end.
      for (const each of all) for (const more of of.get(each) ?? []) all.add(more);
      all.delete(id);
      return [id, all];
    }),
  );
}

function written(known: ReadonlyMap<string, Direction>): Map<string, Direction> {
  return new Map([...known].map(([id, { isRead, isWritten }]) => [id, { isRead, isWritten: isWritten || isRead }]));
}
