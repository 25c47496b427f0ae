import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server may accept more than before. */
export const askChoiceNew = rule("choice", "ask.choice.new", {
  meaning: {
    title: "Another enum value can be sent",
    example: "status `dredging`",
    code: "compatible",
    apps: "compatible",
  },
  find: ({ face, subject, before, after }) =>
    face === "ask" && after !== undefined && before === undefined
      ? { message: `\`${subject}\` now also accepts \`${String(after)}\`.`, verdict: verdicts.harmless }
      : undefined,
});
