import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Fields are sorted by name, so one field more or fewer moves those after it. */
export const answerFieldMoved = rule("place", "answer.field.moved", {
  meaning: {
    title: "The position of a field in its type changed",
    example: "`val (id, quay) = berth` reads `length` as `quay`",
    code: "breaking if your code destructures the type and the field's type differs, risky if it is the same; else compatible",
    apps: "compatible",
  },
  find: ({ record, at, before, after, isSameType }) => ({
    message: `Position ${String(at)} of \`${record}\` was \`${before ?? ""}\` and is now ${after === undefined ? "removed" : `\`${after}\``}.`,
    verdict: isSameType ? verdicts.codeRisky : verdicts.codeBreaks,
    isUnpromised: true,
    ...(after === undefined ? {} : { endangers: ["shows"] as const }),
    hint: "Read fields by their names instead of taking the record apart.",
  }),
});
