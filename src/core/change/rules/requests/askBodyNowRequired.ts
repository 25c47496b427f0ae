import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A server must not require more than before. */
export const askBodyNowRequired = rule("body", "ask.body.now-required", {
  meaning: {
    title: "A request body became required, or a required one was added",
    example: "`changeBerth` requires a body",
    code: "breaking",
    apps: "breaking",
  },
  find: ({ owner, before, after, coordinates }) =>
    after?.required === true && before?.required !== true
      ? {
          message: `${owner} now requires ${before ? "its" : "a"} body.`,
          verdict: verdicts.bothBreak,
          // A body that was optional before breaks where it is left out.
          coordinates: before ? coordinates.map((each) => printCoordinate(each, "omitted")) : coordinates,
          word: null,
        }
      : undefined,
});
