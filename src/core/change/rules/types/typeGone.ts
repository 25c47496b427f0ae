import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A document that names the removed type is refused. */
export const typeGone = rule("definition", "type.gone", {
  meaning: {
    title: "A named type was removed",
    example: "`WorkBoat`",
    code: "breaking if your code names it",
    apps: "breaking in GraphQL if a document names it",
  },
  traits: { hitsNames: true },
  find: ({ before, after, successor }) =>
    before && !after && !successor
      ? { message: `The ${before.role ?? "type"} \`${before.key}\` was removed.`, verdict: verdicts.bothBreak }
      : undefined,
});
