import type { ContractContext } from "../contractContext.js";

/** What is printed of a type. */
export interface PrintedType {
  readonly declared: string;
  /** Functions that read and write it; none where nothing does. */
  readonly forms: readonly string[];
}

/** The whole name of a planned type. */
export function typeName(id: string, { space, names }: ContractContext): string {
  return `${space}.${names.types.get(id) ?? ""}`;
}

/** The name that a type is declared under. */
export function declaredName(id: string, { names }: ContractContext): string {
  const path = names.types.get(id) ?? "";
  return path.slice(path.lastIndexOf(".") + 1);
}
