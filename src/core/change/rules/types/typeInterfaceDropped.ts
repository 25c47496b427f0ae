import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A fragment that leads from one to the other is refused, or matches no more. */
export const typeInterfaceDropped = rule("implementation", "type.interface.dropped", {
  meaning: {
    title: "A type no longer implements an interface",
    example: "`WorkBoat` is not a `Vessel`",
    code: "breaking if a document relies on it",
    apps: "breaking if a document relies on it",
  },
  find: ({ type, before, after, coordinates }) => {
    if (before === undefined || after !== undefined) return undefined;
    // Who only asks which type it is just never sees this one again.
    const told = printCoordinate(before, "toldApart");
    return {
      message: `\`${type}\` no longer implements \`${before}\`.`,
      verdict: verdicts.bothBreak,
      coordinates: [...coordinates, told],
      verdictAt: new Map([[told, verdicts.codeBreaks]]),
    };
  },
});
