import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** The wire knows names of types only where a GraphQL document says them. */
export const typeRenamed = rule(
  "definition",
  "type.renamed",
  {
    title: "A named type has another name",
    example: "`Berth` is now `Mooring`",
    code: "breaking where it is named",
    apps: "compatible; breaking in GraphQL where a document names it",
  },
  ({ before, successor }) =>
    before && successor
      ? {
          message: `The ${before.role ?? "type"} \`${before.key}\` looks renamed: it is now called \`${successor.key}\`.`,
          verdict: verdicts.bothBreak,
        }
      : undefined,
);
