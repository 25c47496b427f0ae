import { indented } from "../../indented.js";
import type { FileContext } from "../contractContext.js";

/** The printed parts of a type. */
export interface PrintedClass {
  readonly declared: string;
  /** Its reader and writer; none if it is not used. */
  readonly form?: string;
  readonly suppresses?: readonly string[];
}

/** Returns a class with others nested in it. */
export function withNested(declared: string, nested: readonly string[]): string {
  if (nested.length === 0) return declared;
  const inner = nested.map((each) => indented(each.trimEnd(), "    ")).join("\n\n");
  return declared.endsWith("}\n")
    ? `${declared.slice(0, -2)}\n${inner}\n}\n`
    : `${declared.trimEnd()} {\n${inner}\n}\n`;
}

/** Returns the interface of an object that reads or writes a type, or both. */
export function formType(
  name: string,
  { isRead, isWritten }: { readonly isRead: boolean; readonly isWritten: boolean },
  { uses }: FileContext,
): string {
  return `${uses.wire(isRead && isWritten ? "Form" : isRead ? "Reader" : "Writer")}<${name}>`;
}
