import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nameless, operationLabel } from "../../../contract/model.js";

/** Released apps still request the old path. The names of path parameters do not count. */
export const operationMoved = rule("operation", "operation.moved", {
  meaning: {
    title: "An operation moved to another path or method",
    example: "`tideTable` moved from `/tides/{day}` to `/tide-tables/{day}`",
    code: "compatible: the call keeps its name",
    apps: "breaking: the old path was removed",
  },
  find: ({ subject, before, after }) => {
    if (!before || !after) return undefined;
    const label = operationLabel(after.operation);
    if (nameless(operationLabel(before.operation)) === nameless(label)) return undefined;
    const { operationId } = before.operation;
    const isSure = operationId !== undefined && operationId === after.operation.operationId;
    const message = isSure ? `${subject} moved to ${label}.` : `${subject} was removed. It may have moved to ${label}.`;
    return { message, verdict: verdicts.appsBreak };
  },
});
