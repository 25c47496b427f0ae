import { rule } from "../rule.js";
import { verdicts } from "../verdict.js";

/** Source that imports the name stops compiling; the wire does not know it. */
export const typeNameGone = rule(
  "name",
  "type.name.gone",
  {
    title: "A type of the SDK is no longer there",
    example: "nothing answers `TariffLine` any more",
    code: "breaking where it is named",
    apps: "compatible",
  },
  ({ before, successor }) =>
    successor === undefined
      ? { message: `The type \`${before}\` is gone: nothing that is called reaches it.`, verdict: verdicts.codeBreaks }
      : undefined,
);
