import { statusCase as plannedCase } from "../../../sdk/lower/failureCases.js";
import { caseIdentifier, spelled } from "../names/identifiers.js";

/**
 * Returns the case of a declared status.
 *
 * @param status "409", "4XX" or "default"
 */
export function statusCase(status: string): string {
  return spelled(caseIdentifier(plannedCase(status)));
}
