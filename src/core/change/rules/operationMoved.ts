import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";
import { operationLabel } from "../../contract/model.js";

/** Released apps go on asking the old path; names of path parameters are no part of it. */
export const operationMoved = rule(
  "operation",
  "operation.moved",
  {
    title: "An operation moved to another path or method",
    example: "`tideTable` moved from `/tides/{day}` to `/tide-tables/{day}`",
    code: "compatible: the call keeps its name",
    apps: "breaking: the old path is gone",
  },
  ({ subject, before, after }) => {
    if (!before || !after) return undefined;
    const label = operationLabel(after.operation);
    const nameless = (text: string): string => text.replace(/\{[^{}]*\}/g, "{}");
    if (nameless(operationLabel(before.operation)) === nameless(label)) return undefined;
    return { message: `${subject} moved to ${label}.`, verdict: verdicts.appsBreak };
  },
);
