import type { Field } from "../../../contract/model.js";

/** What is stored of a property: one that is deprecated is not used inside the SDK. */
export function storedName(name: string, field: Field): string {
  return field.deprecated === undefined ? name : `_${name}`;
}
