import type { PlannedType } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext } from "../contractContext.js";
import { interfacesOf, spelledBefore } from "../names/nestedNames.js";

/** Returns the interfaces of a type's class, with the colon before them; "" if there are none. */
export function superTypes({ id }: PlannedType, context: FileContext): string {
  const direct = interfacesOf(id, context);
  const implied = new Set(direct.flatMap((each) => interfacesOf(each, context)));
  const found = direct
    .filter((each) => !implied.has(each))
    .map((each) => spelledBefore(context.names.types.get(each) ?? "", id, context));
  return found.length === 0 ? "" : ` : ${sortedBy(found, (name) => name).join(", ")}`;
}
