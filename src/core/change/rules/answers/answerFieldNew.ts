import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Unknown fields are ignored; in GraphQL nobody is answered what was not asked for. */
export const answerFieldNew = rule("field", "answer.field.new", {
  meaning: {
    title: "Another field is answered",
    example: "`Berth.photos`",
    code: "compatible; risky for hand-built answers when it is always there",
    apps: "compatible, unless the old contract promised another shape for undeclared fields",
  },
  find: ({ face, subject, before, after, successor, owner, isGraphql, isTakenByRest }) => {
    if (face !== "answer" || before || !after || successor) return undefined;
    const message = `\`${subject}\` is now answered.`;
    if (isGraphql) return { message, verdict: verdicts.harmless };
    if (isTakenByRest === false)
      return {
        message: `${message.slice(0, -1)}, and is not what undeclared fields were promised to be.`,
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
