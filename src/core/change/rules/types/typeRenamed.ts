import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The wire knows names of types only where a GraphQL document says them. */
export const typeRenamed = rule("definition", "type.renamed", {
  meaning: {
    title: "A named type is gone, and another one perhaps came for it",
    example: "`Berth` is now `Mooring`",
    code: "breaking where it is named",
    apps: "compatible; breaking in GraphQL where a document names it",
  },
  find: ({ before, successor, coordinates }, { openUnions }) => {
    if (!before || !successor) return undefined;
    // What tells types apart gets a name that it does not know.
    const told = `${before.key}~`;
    return {
      message: `The ${before.role ?? "type"} \`${before.key}\` is gone; perhaps it is now called \`${successor.key}\`.`,
      verdict: verdicts.bothBreak,
      coordinates: [...coordinates, `${before.key}$`, told],
      verdictAt: { [told]: openUnions ? verdicts.codeBreaksAppsRisky : verdicts.bothBreak },
    };
  },
});
