import { weight, worst, type Level, type Verdict } from "../verdict.js";
import type { ContractImpact, JudgedChange } from "./judgedChange.js";

/** Which changes are let through: from which level on, and judged on which clock, they are not. */
export interface Gate {
  readonly level: "breaking" | "risky" | "off";
  readonly judge: "code" | "apps" | "both";
  /** The share of users, as a fraction, whom a change may break; the clock of apps then counts by releases alone. */
  readonly mostUsers?: number;
}

/** Lets everything through but what breaks. */
export const usualGate: Gate = { level: "breaking", judge: "both" };

/** The verdict on the clocks that count. */
export function judged(verdict: Verdict, judge: Gate["judge"]): Level {
  return judge === "both" ? worst(verdict) : verdict[judge];
}

/** Whether a gate holds a change: it is heavy enough on the clocks that count, and in use as far as can be told. */
export function isHeld(change: JudgedChange, { level, judge, mostUsers }: Gate): boolean {
  if (level === "off" || change.use === "not used" || change.accepted) return false;
  if (mostUsers !== undefined) {
    const isHeldOnCode = judge !== "apps" && weight[change.verdict.code] >= weight[level];
    return isHeldOnCode || (judge !== "code" && (change.users?.share ?? 0) > mostUsers);
  }
  return weight[judged(change.verdict, judge)] >= weight[level];
}

/** Whether a gate holds anything of an impact. */
export function holdsAny(impact: ContractImpact, gate: Gate): boolean {
  if (gate.level === "off") return false;
  return holdsRefusals(impact, gate) || impact.changes.some((each) => isHeld(each, gate));
}

/**
 * Whether a gate holds queries that the new contract refuses. A query that the new contract refuses breaks on both clocks: the SDK is not
 * made of it any more, and a server that validates it, as all have to (GraphQL, section 6), refuses it from released apps.
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
