import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** The kind of a type decides how documents may use its name. */
export const typeKindChanged = rule("definition", "type.kind.changed", {
  meaning: {
    title: "A name is now another kind of type",
    example: "the interface `Vessel` became a union",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ before, after }) => {
    if (!before || !after || before.role === after.role) return undefined;
    const article = (role = "type"): string => `${/^[aeiou]/.test(role) ? "an" : "a"} ${role}`;
    return {
      message: `\`${before.key}\` was ${article(before.role)} and is ${article(after.role)}.`,
      verdict: verdicts.bothBreak,
    };
  },
});
