import { statusCase as plannedCase } from "../../../sdk/lower/failureCases.js";
import { caseIdentifier, spelled } from "../names/identifiers.js";

/** The case of a declared status. */
export function statusCase(status: string): string {
  return spelled(caseIdentifier(plannedCase(status)));
}
