import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A fragment from one type to the other is refused, or no longer matches. */
export const typeInterfaceDropped = rule("implementation", "type.interface.dropped", {
  meaning: {
    title: "A type no longer implements an interface",
    example: "`WorkBoat` is not a `Vessel`",
    code: "breaking if a document relies on it",
    apps: "breaking if a document relies on it",
  },
  find: ({ type, before, after, coordinates }) => {
    if (before === undefined || after !== undefined) return undefined;
    // A document that only distinguishes types just never sees this one again.
    const told = printCoordinate(before, "toldApart");
    return {
      message: `\`${type}\` no longer implements \`${before}\`.`,
      verdict: verdicts.bothBreak,
      coordinates: [...coordinates, told],
      verdictAt: new Map([[told, verdicts.codeBreaks]]),
    };
  },
});
