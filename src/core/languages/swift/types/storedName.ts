import type { Field } from "../../../contract/model.js";

/** Returns the stored property's name. A deprecated property is not used inside the SDK. */
export function storedName(name: string, field: Field): string {
  return field.deprecated === undefined ? name : `_${name}`;
}
