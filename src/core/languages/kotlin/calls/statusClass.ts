import { statusCase } from "../../../sdk/lower/failureCases.js";

/**
 * Returns the class of a declared status.
 *
 * @param status "409", "4XX" or "default"
 */
export function statusClass(status: string): string {
  const name = statusCase(status);
  return name.charAt(0).toUpperCase() + name.slice(1);
}
