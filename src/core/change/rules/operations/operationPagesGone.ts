import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** What went through the pages was made because the contract let it. */
export const operationPagesGone = rule("paging", "operation.pages.gone", {
  meaning: {
    title: "All pages of a list can no longer be gone through",
    example: "`listBerths` lost its cursor",
    code: "breaking: the call for all pages is gone",
    apps: "compatible",
  },
  find: ({ subject, before, after }) =>
    before === after
      ? undefined
      : {
          message:
            after === undefined
              ? `${subject} no longer answers page by page, so \`${before}\` is gone.`
              : `${subject} answers page by page another way: \`${before}\` is now \`${after}\`.`,
          verdict: verdicts.codeBreaks,
        },
});
