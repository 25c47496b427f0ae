import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import { nameless, operationLabel } from "../../../contract/model.js";

/** The name of a call is in source, but is not sent. */
export const operationRenamed = rule("operation", "operation.renamed", {
  meaning: {
    title: "A call has another name, because its operationId or path changed",
    example: "`listBerths` is now `findBerths`",
    code: "breaking: the function has another name",
    apps: "compatible: the request is the same",
  },
  find: ({ subject, before, after }) => {
    if (!before || !after || before.name === after.name) return undefined;
    const now = operationLabel(after.operation);
    const isSame = nameless(operationLabel(before.operation)) === nameless(now);
    return {
      message: isSame
        ? `${subject} is now named \`${after.name}\` instead of \`${before.name}\`.`
        : `${now} may replace ${subject}. It is named \`${after.name}\` instead of \`${before.name}\`.`,
      verdict: verdicts.codeBreaks,
      hint: `Call \`${after.name}\` instead.`,
    };
  },
});
