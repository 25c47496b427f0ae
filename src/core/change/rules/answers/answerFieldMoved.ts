import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Fields stand in the order of their names, so that one more, or one less, moves those behind it. */
export const answerFieldMoved = rule("place", "answer.field.moved", {
  meaning: {
    title: "A field has another place in its record",
    example: "`val (id, quay) = berth` takes `length` for `quay`",
    code: "breaking where source takes the record apart and the type differs; risky where it is the same, or the value is only shown; else compatible",
    apps: "compatible",
  },
  find: ({ record, at, before, after, isSameType }) => ({
    message: `Place ${String(at)} of \`${record}\` was \`${before ?? ""}\` and is ${after === undefined ? "gone" : `\`${after}\``}.`,
    verdict: isSameType ? verdicts.codeRisky : verdicts.codeBreaks,
    isUnpromised: true,
    ...(after === undefined ? {} : { endangers: ["shows"] as const }),
    hint: "Read fields by their names instead of taking the record apart.",
  }),
});
