import type { Reference } from "../../../src/core/contract/model.js";
import { resolveShape } from "../../../src/core/contract/resolveShape.js";
import { recordNames } from "../../../src/core/languages/kotlin/names/names.js";
import { seenAs, type DumpOf, type Fields, type Types } from "../vectors/seenAs.js";
import type { Data } from "../vectors/vectorRow.js";

/**
 * Returns what an app in Kotlin sees, in the form of rows.
 *
 * @param dumped the output of `Dump.kt`
 */
export function seenInKotlin(dumped: Data, reference: Reference | undefined, types: Types): unknown {
  return seenAs({ dumped, as: reference }, types, dumpInKotlin);
}

const dumpInKotlin: DumpOf = {
  names: recordNames,
  member: (fields, shape, types) => {
    if (shape?.kind !== "union") return undefined;
    const properties = fields["$record"] as Fields;
    if ((fields["$class"] as string).endsWith("$Other")) return { dumped: properties["json"] ?? null, as: undefined };
    const member = shape.members.find((each) => fits(properties, each, types));
    return { dumped: member ? fields : (properties["value"] ?? null), as: member };
  },
};

function fits(properties: Fields, { shape }: Reference, types: Types): boolean {
  const record = resolveShape(shape, types);
  if (record.kind !== "record") return false;
  const names = record.fields.map((field) => recordNames(record).of(field)).sort();
  return (
    JSON.stringify(names) ===
    JSON.stringify(
      Object.keys(properties)
        .filter((name) => name !== "otherKeys")
        .sort(),
    )
  );
}
