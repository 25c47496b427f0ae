import type { Reference } from "../../../src/core/contract/model.js";
import { recordNames, unionCases } from "../../../src/core/languages/swift/names/names.js";
import { seenAs, type DumpOf, type Types } from "../vectors/seenAs.js";
import type { Data } from "../vectors/vectorRow.js";

/**
 * Returns what an app in Swift sees, in the form of rows.
 *
 * @param dumped the output of `Dump.swift`
 */
export function seenInSwift(dumped: Data, reference: Reference | undefined, types: Types): unknown {
  return seenAs({ dumped, as: reference }, types, dumpInSwift);
}

const dumpInSwift: DumpOf = {
  names: recordNames,
  member: (fields, shape, types) => {
    if (!("$case" in fields)) return undefined;
    const dumped = fields["$value"] ?? null;
    if (shape?.kind !== "union") return { dumped, as: undefined };
    return { dumped, as: [...unionCases(shape, types)].find(([, name]) => name === fields["$case"])?.[0] };
  },
  kept: "_",
};
