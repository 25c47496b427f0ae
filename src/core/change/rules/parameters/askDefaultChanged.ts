import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Defaults are never sent, so a request without the parameter gets the new one. */
export const askDefaultChanged = rule("parameter", "ask.default.changed", {
  meaning: {
    title: "The server's default for a parameter changed",
    example: "`pageSize` defaults to 50 instead of 20",
    code: "compatible",
    apps: "risky",
  },
  find: ({ subject, before, after, coordinates, isGraphql }) => {
    if (!before || !after || JSON.stringify(before.default) === JSON.stringify(after.default)) return undefined;
    // That it is now required is a change of its own.
    if (isGraphql && after.default === undefined && after.required) return undefined;
    const said = (value: unknown): string => (value === undefined ? "nothing" : JSON.stringify(value));
    return {
      message: `The server's default for \`${subject}\` is now ${said(after.default)} instead of ${said(before.default)}.`,
      verdict: verdicts.appsRisky,
      coordinates: isGraphql
        ? [printCoordinate(subject, "omitted")]
        : coordinates.map((each) => printCoordinate(each, "omitted")),
      word: null,
    };
  },
});
