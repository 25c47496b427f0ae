import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** Fields stand in the order of their names, so that one more, or one less, moves those behind it. */
export const answerFieldMoved = rule(
  "place",
  "answer.field.moved",
  {
    title: "Another field stands at a place where records are taken apart",
    example: "`val (id, quay) = berth` gets `length` for `quay`",
    code: "breaking where the type is another one; risky where it is the same, or the value is only shown; of no matter where no record is taken apart so",
    apps: "compatible",
  },
  ({ subject, before, after, isSameType }) => ({
    message:
      after === undefined
        ? `\`${subject}\` was \`${before ?? ""}\`, and nothing stands there now.`
        : `\`${subject}\` was \`${before ?? ""}\` and is \`${after}\`, where the record is taken apart by places.`,
    verdict: isSameType ? verdicts.codeRisky : verdicts.codeBreaks,
    isUnpromised: true,
    ...(after === undefined ? {} : { endangers: ["shows"] as const }),
    hint: "Read the fields by their names.",
  }),
);
