import type { ContractImpact } from "../change/judge/judgedChange.js";
import type { JoinedChange } from "./joinedChanges.js";
import { typeAt, typeNames } from "./typeAt.js";

/**
 * Returns a function for the heading of a change in a report: the operation that it is about, the operations that share
 * it, or the type with its full name, dots included.
 */
export function headingIn({ contracts }: ContractImpact): (change: JoinedChange) => string {
  const names = typeNames(contracts?.before, contracts?.after);
  return (change) => {
    const [only, ...more] = change.operations;
    const isOwn = only !== undefined && (change.subject.startsWith(only) || change.face === "operation");
    if (isOwn && change.differ === "operations") return "several operations";
    if (change.differ === "types") return "several types";
    if (isOwn && more.length === 0) return `operation ${only}`;
    return `type ${typeAt(change.subject, names)}`;
  };
}
