import { worst, type Level } from "../change/verdict.js";
import { holdsRefusals, isHeld, type Gate } from "../change/judge/gate.js";
import type { ContractImpact } from "../change/judge/judgedChange.js";
import type { Place } from "../problem/place.js";
import type { ImpactTexts } from "./renderImpact.js";
import type { ShownTexts } from "../problem/shownTexts.js";

/** One finding for machines: a change at one place that it affects, or at the contract if it affects none. */
export interface Finding {
  readonly contract: string;
  readonly code: string;
  readonly level: Level;
  readonly message: string;
  readonly isHeld: boolean;
  readonly use: "used" | "not used" | "cannot tell";
  readonly at?: { readonly file: string; readonly line: number; readonly column: number };
}

/**
 * Returns the findings of an impact, in the order of its report. A query that the new contract refuses is a finding
 * too.
 */
export function impactFindings(impacts: readonly ContractImpact[], texts: ImpactTexts, gate: Gate): Finding[] {
  return impacts.flatMap((impact) => [
    ...impact.changes.flatMap((change): Finding[] => {
      const base = {
        contract: impact.contract,
        code: change.code,
        level: worst(change.verdict),
        message: `${change.message} (code ${change.verdict.code}, apps ${change.verdict.apps})`,
        isHeld: isHeld(change, gate),
        use: change.use,
      };
      if (change.hits.length > 0) return change.hits.map(({ place }) => ({ ...base, ...at(place, texts.before) }));
      return [{ ...base, ...(change.after ? at(change.after, texts.after) : {}) }];
    }),
    ...impact.brokenQueries.map((problem): Finding => {
      const [place] = problem.places;
      return {
        contract: impact.contract,
        code: problem.code,
        level: "breaking",
        message: problem.message,
        isHeld: holdsRefusals(impact, gate),
        use: "used",
        ...(place ? at(place, texts.before) : {}),
      };
    }),
  ]);
}

function at(place: Place, texts: ShownTexts): Pick<Finding, "at"> {
  const position = texts.position(place);
  if (!position) return place.document === "" ? {} : { at: { file: place.document, line: 1, column: 1 } };
  const { line, column } = position;
  return { at: { file: place.document, line, column } };
}
