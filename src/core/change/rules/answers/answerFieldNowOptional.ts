import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A response must keep its promises. */
export const answerFieldNowOptional = rule("field", "answer.field.now-optional", {
  meaning: {
    title: "A field can be absent from responses",
    example: "`Berth.quay`",
    code: "breaking; compatible if it could be null and the language does not tell the two apart",
    apps: "breaking, with the same exception",
  },
  find: ({ face, subject, before, after }, { tellsAbsentFromNull }) =>
    face === "answer" && before?.required === true && after?.required === false
      ? {
          message: `\`${subject}\` can now be absent from responses.`,
          // Source that does not distinguish absent from null gets nothing that it could not get before.
          verdict: before.type.nullable && !tellsAbsentFromNull ? verdicts.harmless : verdicts.bothBreak,
          spares: ["shows", "compares"],
          isOfNull: true,
          hint: "Handle its absence wherever your code reads it.",
        }
      : undefined,
});
