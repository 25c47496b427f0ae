import { statusCase } from "../../../sdk/lower/failureCases.js";

/** The class of a declared status. */
export function statusClass(status: string): string {
  const name = statusCase(status);
  return name.charAt(0).toUpperCase() + name.slice(1);
}
