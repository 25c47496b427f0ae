import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Unknown fields are ignored. In GraphQL, a response contains only what was selected. */
export const answerFieldNew = rule("field", "answer.field.new", {
  meaning: {
    title: "A field was added to responses",
    example: "`Berth.photos`",
    code: "compatible; risky for hand-written responses if it is always present",
    apps: "compatible, unless the old contract gave undeclared fields another type",
  },
  find: ({ face, subject, before, after, successor, owner, isGraphql, isTakenByRest }) => {
    if (face !== "answer" || before || !after || successor) return undefined;
    const message = `\`${subject}\` was added to responses.`;
    if (isGraphql) return { message, verdict: verdicts.harmless };
    if (isTakenByRest === false)
      return {
        message: `${message.slice(0, -1)}, with another type than undeclared fields had.`,
        verdict: verdicts.bothBreak,
        word: null,
      };
    return {
      message,
      verdict: after.required ? verdicts.codeRisky : verdicts.harmless,
      coordinates: after.required ? owner : [],
      ...(after.required ? { word: null } : {}),
    };
  },
});
