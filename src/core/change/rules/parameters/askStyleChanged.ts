import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";
import type { Asked } from "../../compare/points.js";

function hasParts({ type }: Asked): boolean {
  return !["text", "integer", "number", "boolean", "literal", "choice"].includes(type.shape.kind);
}

/** The server parses a value that an old app writes in another way. */
export const askStyleChanged = rule("parameter", "ask.style.changed", {
  meaning: {
    title: "A parameter is serialized in another way",
    example: "`status` is `a,b` instead of repeated",
    code: "compatible",
    apps: "breaking",
  },
  find: ({ subject, before, after }) => {
    if (!before || !after) return undefined;
    const isStyled = before.style !== after.style || (hasParts(before) && before.explode !== after.explode);
    return isStyled
      ? { message: `\`${subject}\` is now serialized differently.`, verdict: verdicts.appsBreak }
      : undefined;
  },
});
