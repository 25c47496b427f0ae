import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** The wire does not know what a call is called; source does. */
export const operationRenamed = rule(
  "operation",
  "operation.renamed",
  {
    title: "A call got another name: from its operationId, or from its path where it has none",
    example: "`listBerths` is now `findBerths`",
    code: "breaking: the call has another name",
    apps: "compatible: the request is the same",
  },
  ({ subject, before, after }) => {
    if (!before || !after || before.name === after.name) return undefined;
    return {
      message: `${subject} is now called \`${after.name}\`; it was \`${before.name}\`.`,
      verdict: verdicts.codeBreaks,
      hint: `Call \`${after.name}\` instead.`,
    };
  },
);
