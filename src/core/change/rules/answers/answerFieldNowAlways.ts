import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** More is promised than before. Only code that builds a response must add the field. */
export const answerFieldNowAlways = rule("field", "answer.field.now-always", {
  meaning: {
    title: "A field is always present in responses",
    example: "`BerthPage.total`",
    code: "risky for hand-written responses; breaking if your code unwraps it and the language refuses that",
    apps: "compatible",
  },
  find: ({ face, subject, before, after, coordinates, isGraphql }, { refusesUnwrapping }) =>
    face === "answer" && before?.required === false && after?.required === true
      ? {
          message: `\`${subject}\` is now always present.`,
          verdict: verdicts.codeRisky,
          ...(refusesUnwrapping && !after.type.nullable ? { unwrapped: coordinates } : {}),
          ...(isGraphql
            ? {}
            : { coordinates: coordinates.map((each) => printCoordinate(each, "omitted")), word: null }),
        }
      : undefined,
});
