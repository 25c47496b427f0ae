import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** A request without it is refused. */
export const askFieldNowRequired = rule("field", "ask.field.now-required", {
  meaning: {
    title: "A field in requests became required",
    example: "`ReservationRequest.crew`",
    code: "breaking if your code omits it",
    apps: "breaking",
  },
  find: ({ face, subject, before, after, coordinates, owner, isGraphql }) =>
    face === "ask" && before?.required === false && after?.required === true
      ? {
          message: `\`${subject}\` must now be sent. It was optional.`,
          verdict: verdicts.bothBreak,
          coordinates: [
            ...(isGraphql ? owner.filter((each) => !each.endsWith("{}")) : []),
            ...coordinates.flatMap((each) => [printCoordinate(each, "omitted"), printCoordinate(each, "maybeNull")]),
          ],
          word: null,
        }
      : undefined,
});
