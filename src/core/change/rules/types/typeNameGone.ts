import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Source that imports the name no longer compiles. The name is not sent. */
export const typeNameGone = rule("name", "type.name.gone", {
  meaning: {
    title: "A type of the SDK was removed",
    example: "no response has `TariffLine`",
    code: "breaking if your code names it",
    apps: "compatible",
  },
  find: ({ before, successor, isMadeUp }) => {
    if (successor !== undefined) return undefined;
    if (isMadeUp === true)
      return {
        message: `The type \`${before}\` was removed. The SDK invented its name for an unnamed type.`,
        verdict: verdicts.codeBreaks,
        isUnpromised: true,
        hint: "Name the type in the contract, or derive it from the type that contains it.",
      };
    return {
      message: `The type \`${before}\` was removed: no call uses it.`,
      verdict: verdicts.codeBreaks,
    };
  },
});
