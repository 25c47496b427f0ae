import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Names of types are sent only if a GraphQL document contains them. */
export const typeRenamed = rule("definition", "type.renamed", {
  meaning: {
    title: "A named type was removed, and another one may replace it",
    example: "`Berth` is now `Mooring`",
    code: "breaking if your code names it",
    apps: "compatible; breaking in GraphQL if a document names it",
  },
  traits: { hitsNames: true },
  find: ({ before, successor, coordinates }, { openUnions }) => {
    if (!before || !successor) return undefined;
    // Code that distinguishes types gets a name that it does not know.
    const told = printCoordinate(before.key, "byName");
    return {
      message: `The ${before.role ?? "type"} \`${before.key}\` was removed. It may have been renamed to \`${successor.key}\`.`,
      verdict: verdicts.bothBreak,
      coordinates: [...coordinates, printCoordinate(before.key, "variable"), told],
      verdictAt: new Map([[told, openUnions ? verdicts.codeBreaksAppsRisky : verdicts.bothBreak]]),
    };
  },
});
