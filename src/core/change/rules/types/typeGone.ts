import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A document that names what is gone is refused. */
export const typeGone = rule("definition", "type.gone", {
  meaning: {
    title: "A named type was removed",
    example: "`WorkBoat`",
    code: "breaking where it is named",
    apps: "breaking in GraphQL where a document names it",
  },
  traits: { hitsNames: true },
  find: ({ before, after, successor }) =>
    before && !after && !successor
      ? { message: `The ${before.role ?? "type"} \`${before.key}\` is gone.`, verdict: verdicts.bothBreak }
      : undefined,
});
