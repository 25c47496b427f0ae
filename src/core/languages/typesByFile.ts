import type { PlannedType } from "../sdk/sdkPlan.js";
import { sortedBy } from "../text/sortedBy.js";

/** The types of a contract, by the files in which a language declares them. */
export interface TypesByFile {
  /** By the name of the type that a file is named after. That type comes first. */
  readonly files: ReadonlyMap<string, readonly PlannedType[]>;
  /** The types that are only another name for something. */
  readonly aliases: readonly PlannedType[];
}

/**
 * Groups the types of a contract by file, sorted by name. Nested types are left out, because they are printed with the
 * type around them.
 *
 * @param names the names of the types by id, with dots in those of nested types
 * @param homeOf returns the name of the type in whose file a type is declared; undefined if it is an alias
 */
export function typesByFile(
  types: Iterable<PlannedType>,
  names: ReadonlyMap<string, string>,
  homeOf: (type: PlannedType) => string | undefined,
): TypesByFile {
  const files = new Map<string, { readonly own: PlannedType[]; readonly others: PlannedType[] }>();
  const aliases: PlannedType[] = [];
  for (const type of sortedBy(types, ({ id }) => names.get(id) ?? "")) {
    const name = names.get(type.id) ?? "";
    if (name.includes(".")) continue;
    const home = homeOf(type);
    if (home === undefined) {
      aliases.push(type);
      continue;
    }
    const file = files.get(home) ?? { own: [], others: [] };
    files.set(home, file);
    (home === name ? file.own : file.others).push(type);
  }
  return { files: new Map([...files].map(([home, { own, others }]) => [home, [...own, ...others]])), aliases };
}
