import type { RecordShape } from "../../contract/model.js";
import { directions, type Direction } from "../../sdk/lower/values/directions.js";
import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { recordsWithFiles } from "../../sdk/lower/values/recordsWithFiles.js";
import { wrappedAliases } from "../../sdk/lower/values/wrappedAliases.js";
import { fragmentTypes } from "../../sdk/lower/fragmentTypes.js";
import { boxed, type Boxed } from "./types/boxed.js";
import { swiftNames, type SwiftNames } from "./names/names.js";
import type { SwiftSettings } from "./settings.js";

/** One contract of an SDK, with everything that printing any part of it needs. */
export interface ContractContext<Contract extends LoweredContract = LoweredContract> {
  readonly contract: Contract;
  readonly names: SwiftNames;
  /** The namespace of this contract's part, and that of the runtime. */
  readonly space: string;
  readonly wire: string;
  readonly connection: string;
  /** What stands before what an SDK offers: "public " in a package, "" in an app's own target. */
  readonly access: string;
  /** What the configuration says each GraphQL scalar is. */
  readonly scalars: ReadonlyMap<string, string>;
  readonly formats: NonNullable<SwiftSettings["formats"]>;
  /** Which ways values go. */
  readonly directions: ReadonlyMap<string, Direction>;
  /** Which ways there is code for: a fake connection writes what the app reads. */
  readonly forms: ReadonlyMap<string, Direction>;
  /** Names for something that would hold itself; each becomes a struct. */
  readonly wrapped: ReadonlySet<string>;
  readonly boxed: Boxed;
  /** Records with files below them, whose forms collect them. */
  readonly filed: ReadonlySet<RecordShape>;
  /** By the id of a record or union, ids of the types inside fragments that each of its values is too. */
  readonly views: ReadonlyMap<string, ReadonlySet<string>>;
  /** The tuples that are used, by the names of what reads and writes them. */
  readonly tuples: Map<string, UsedTuple>;
}

/** A kind of tuple that a contract uses. */
export interface UsedTuple {
  readonly type: string;
  readonly count: number;
  /** How many of its positions have to be there. */
  readonly needed: number;
  readonly hasRest: boolean;
}

export type RestContext = ContractContext<LoweredRest>;
export type GraphqlContext = ContractContext<LoweredGraphql>;

/** Returns what every printer of a contract needs to know. */
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
    boxed: boxed(contract.types, wrapped),
    filed: recordsWithFiles(contract.types),
    views: allViews(fragmentTypes(plan).of),
    tuples: new Map(),
  };
}

/** What values are, and what follows from that. */
function allViews(of: ReadonlyMap<string, ReadonlySet<string>>): Map<string, ReadonlySet<string>> {
  return new Map(
    [...of].map(([id, direct]) => {
      const all = new Set(direct);
      // A set that grows is walked to its end.
      for (const each of all) for (const more of of.get(each) ?? []) all.add(more);
      all.delete(id);
      return [id, all];
    }),
  );
}

function written(known: ReadonlyMap<string, Direction>): Map<string, Direction> {
  return new Map([...known].map(([id, { isRead, isWritten }]) => [id, { isRead, isWritten: isWritten || isRead }]));
}
