import { weight, worst, type Level, type Verdict } from "../verdict.js";
import type { ContractImpact, JudgedChange } from "./judgedChange.js";

/** Which changes pass: those below a level, by the verdict for your code, for released apps, or for both. */
export interface Gate {
  readonly level: "breaking" | "risky" | "off";
  readonly judge: "code" | "apps" | "both";
  /** The share of users, as a fraction, that a change may break. The verdict for apps then counts only for releases. */
  readonly mostUsers?: number;
}

/** The default gate, at which only breaking changes fail. */
export const usualGate: Gate = { level: "breaking", judge: "both" };

/**
 * Returns the level by the verdicts that count.
 *
 * @param judge "code", "apps" or both
 */
export function judged(verdict: Verdict, judge: Gate["judge"]): Level {
  return judge === "both" ? worst(verdict) : verdict[judge];
}

/**
 * Returns whether a change fails a gate: its level is high enough by the verdicts that count, and it is in use as far
 * as is known.
 */
export function isHeld(change: JudgedChange, { level, judge, mostUsers }: Gate): boolean {
  if (level === "off" || change.use === "not used" || change.accepted) return false;
  if (mostUsers !== undefined) {
    const isHeldOnCode = judge !== "apps" && weight[change.verdict.code] >= weight[level];
    return isHeldOnCode || (judge !== "code" && (change.users?.share ?? 0) > mostUsers);
  }
  return weight[judged(change.verdict, judge)] >= weight[level];
}

/** Returns whether something in an impact fails a gate. */
export function holdsAny(impact: ContractImpact, gate: Gate): boolean {
  if (gate.level === "off") return false;
  return holdsRefusals(impact, gate) || impact.changes.some((each) => isHeld(each, gate));
}

/**
 * Returns whether queries that the new contract refuses fail a gate. Such a query breaks both your code and released
 * apps: the SDK no longer contains it, and a server that validates it, as all must (GraphQL, section 6), refuses it
 * from released apps.
 */
export function holdsRefusals(
  { brokenQueries, isReleased, refusedShare = 0 }: ContractImpact,
  { level, judge, mostUsers }: Gate,
): boolean {
  if (mostUsers !== undefined) {
    const counts = isReleased === true ? judge !== "code" && refusedShare > mostUsers : judge !== "apps";
    return level !== "off" && brokenQueries.length > 0 && counts;
  }
  return level !== "off" && brokenQueries.length > 0 && !(isReleased === true && judge === "code");
}
