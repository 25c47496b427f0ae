import type { Level } from "../verdict.js";
import type { JudgedChange } from "./judgedChange.js";

/** Another level for all changes of one code, and why. */
export interface RuleLevel {
  readonly code?: Level;
  readonly apps?: Level;
  readonly reason: string;
}

/** A change that is known and wanted, until a day. */
export interface AcceptedChange {
  /** The code of the change. */
  readonly change: string;
  /** What changed, as reports name it; every change of the code when absent. */
  readonly subject?: string;
  /** The contract; any when absent. */
  readonly contract?: string;
  readonly reason: string;
  /** The last day on which it is accepted, as YYYY-MM-DD. */
  readonly until: string;
}

/** What a team has decided about changes. */
export interface Policy {
  readonly rules?: Readonly<Record<string, RuleLevel>>;
  readonly accepted?: readonly AcceptedChange[];
}

/**
 * Judges changes as a team has decided: other levels first, then what is accepted and not outlived.
 *
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
