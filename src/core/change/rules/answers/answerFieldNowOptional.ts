import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** An answer must keep what it promised. */
export const answerFieldNowOptional = rule("field", "answer.field.now-optional", {
  meaning: {
    title: "A field may be absent from answers",
    example: "`Berth.quay`",
    code: "breaking; compatible where it could be null and the language does not tell the two apart",
    apps: "breaking, with the same exception",
  },
  find: ({ face, subject, before, after }, { tellsAbsentFromNull }) =>
    face === "answer" && before?.required === true && after?.required === false
      ? {
          message: `\`${subject}\` may now be absent from answers.`,
          // To source that does not tell absent from null, nothing comes that could not come before.
          verdict: before.type.nullable && !tellsAbsentFromNull ? verdicts.harmless : verdicts.bothBreak,
          spares: ["shows", "compares"],
          isOfNull: true,
          hint: "Handle its absence where it is read.",
        }
      : undefined,
});
