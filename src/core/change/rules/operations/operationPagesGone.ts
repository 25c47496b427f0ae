import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The function for all pages existed because the contract had pages. */
export const operationPagesGone = rule("paging", "operation.pages.gone", {
  meaning: {
    title: "A list no longer has pages",
    example: "`listBerths` no longer has a cursor",
    code: "breaking: the function for all pages was removed",
    apps: "compatible",
  },
  find: ({ subject, before, after }) =>
    before === after
      ? undefined
      : {
          message:
            after === undefined
              ? `${subject} no longer has pages, so \`${before}\` was removed.`
              : `${subject} pages differently: \`${before}\` is now \`${after}\`.`,
          verdict: verdicts.codeBreaks,
        },
});
