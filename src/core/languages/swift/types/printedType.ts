import type { ContractContext } from "../contractContext.js";

/** The printed parts of a type. */
export interface PrintedType {
  readonly declared: string;
  /** The functions that read and write it; none if it is not used. */
  readonly forms: readonly string[];
}

/** Returns the full name of a planned type. */
export function typeName(id: string, { space, names }: ContractContext): string {
  return `${space}.${names.types.get(id) ?? ""}`;
}

/** Returns the name with which a type is declared. */
export function declaredName(id: string, { names }: ContractContext): string {
  const path = names.types.get(id) ?? "";
  return path.slice(path.lastIndexOf(".") + 1);
}
