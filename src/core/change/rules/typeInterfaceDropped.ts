import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** A fragment that leads from one to the other is refused, or matches no more. */
export const typeInterfaceDropped = rule(
  "implementation",
  "type.interface.dropped",
  {
    title: "A type no longer implements an interface",
    example: "`WorkBoat` is no `Vessel`",
    code: "breaking where a document bridges the two",
    apps: "breaking where a document bridges the two",
  },
  ({ type, before, after, coordinates }) =>
    before !== undefined && after === undefined
      ? { message: `\`${type}\` no longer implements \`${before}\`.`, verdict: verdicts.bothBreak, coordinates }
      : undefined,
);
