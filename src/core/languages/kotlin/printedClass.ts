import type { FileContext } from "./contractContext.js";

/** What one file holds of a type. */
export interface PrintedClass {
  readonly parts: readonly string[];
  readonly suppresses?: readonly string[];
}

/** The interface of what reads or writes a type, or both. */
export function formType(
  name: string,
  { isRead, isWritten }: { readonly isRead: boolean; readonly isWritten: boolean },
  { uses }: FileContext,
): string {
  return `${uses.wire(isRead && isWritten ? "Form" : isRead ? "Reader" : "Writer")}<${name}>`;
}
