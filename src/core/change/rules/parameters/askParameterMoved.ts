import { rule } from "../../rule.js";

/** The server ignores the parameter in its old place. */
export const askParameterMoved = rule("parameter", "ask.parameter.moved", {
  meaning: {
    title: "A parameter is sent in another location",
    example: "`quay` is a header now",
    code: "compatible if its name stays",
    apps: "risky; breaking if it is required",
  },
  find: ({ owner, before, successor, isGraphql }) => {
    if (isGraphql || !before || !successor || before.in === successor.in) return undefined;
    const isNamedAlike = before.argument === successor.argument;
    return {
      message: `In ${owner}, the ${before.in ?? ""} parameter \`${before.name}\` is now sent in the ${successor.in ?? ""}.`,
      verdict: { code: isNamedAlike ? "compatible" : "breaking", apps: successor.required ? "breaking" : "risky" },
    };
  },
});
