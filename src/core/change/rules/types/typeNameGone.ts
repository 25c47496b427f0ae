import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Source that imports the name stops compiling; the wire does not know it. */
export const typeNameGone = rule("name", "type.name.gone", {
  meaning: {
    title: "A type of the SDK is no longer there",
    example: "nothing answers `TariffLine` any more",
    code: "breaking where it is named",
    apps: "compatible",
  },
  find: ({ before, successor, isMadeUp }) => {
    if (successor !== undefined) return undefined;
    if (isMadeUp === true)
      return {
        message: `The type \`${before}\` is gone; the SDK had made its name up for a shape that has none.`,
        verdict: verdicts.codeBreaks,
        isUnpromised: true,
        hint: "Give the shape a name in the contract, or take its type from the type around it.",
      };
    return {
      message: `The type \`${before}\` is gone: nothing that is called reaches it.`,
      verdict: verdicts.codeBreaks,
    };
  },
});
