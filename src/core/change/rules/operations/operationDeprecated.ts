import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** This is only a warning. */
export const operationDeprecated = rule("operation", "operation.deprecated", {
  meaning: {
    title: "An operation was deprecated",
    example: "`listTariffs` is deprecated",
    code: "compatible",
    apps: "compatible",
  },
  traits: { isDeprecation: true },
  find: ({ subject, before, after }) =>
    before && after && before.operation.deprecated === undefined && after.operation.deprecated !== undefined
      ? { message: `${subject} is now deprecated.`, verdict: verdicts.harmless }
      : undefined,
});
