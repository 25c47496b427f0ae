import type { Level } from "../verdict.js";
import type { JudgedChange } from "./judgedChange.js";

/** Another level for all changes with one code, with a reason. */
export interface RuleLevel {
  readonly code?: Level;
  readonly apps?: Level;
  readonly reason: string;
}

/** An accepted change, until a date. */
export interface AcceptedChange {
  /** The code of the change. */
  readonly change: string;
  /** The subject of the change, as in reports. Without one, every change with the code is accepted. */
  readonly subject?: string;
  /** The contract; any if absent. */
  readonly contract?: string;
  readonly reason: string;
  /** The last date on which it is accepted, as YYYY-MM-DD. */
  readonly until: string;
}

/** A team's decisions about changes. */
export interface Policy {
  readonly rules?: Readonly<Record<string, RuleLevel>>;
  readonly accepted?: readonly AcceptedChange[];
}

/**
 * Applies a team's decisions: other levels first, then accepted changes that have not expired.
 *
 * @param contract the name of the contract
 * @param today as YYYY-MM-DD
 */
export function applyPolicy(
  changes: readonly JudgedChange[],
  { rules = {}, accepted = [] }: Policy,
  { contract, today }: { readonly contract: string; readonly today: string },
): JudgedChange[] {
  return changes.map((change) => {
    const rule = Object.hasOwn(rules, change.code) ? rules[change.code] : undefined;
    const verdict = {
      code: rule?.code ?? change.verdict.code,
      apps: rule?.apps ?? change.verdict.apps,
    };
    const acceptance = accepted.find((each) => fits(each, change, contract) && each.until >= today);
    return {
      ...change,
      verdict,
      ...(change.sdks && rule?.code ? { sdks: change.sdks.map((each) => ({ ...each, code: verdict.code })) } : {}),
      ...(rule ? { leveled: rule.reason } : {}),
      ...(acceptance ? { accepted: { reason: acceptance.reason, until: acceptance.until } } : {}),
    };
  });
}

function fits(accepted: AcceptedChange, change: JudgedChange, contract: string): boolean {
  return (
    accepted.change === change.code &&
    (accepted.subject === undefined || accepted.subject === change.subject) &&
    (accepted.contract === undefined || accepted.contract === contract)
  );
}
