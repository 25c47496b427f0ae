import { printCoordinate } from "../../../use/coordinate.js";
import { rule } from "../../rule.js";
import { verdicts } from "../../verdict.js";

/** Who left it out is refused. */
export const askFieldNowRequired = rule("field", "ask.field.now-required", {
  meaning: {
    title: "A field that is sent became required",
    example: "`ReservationRequest.crew`",
    code: "breaking where it is left out",
    apps: "breaking",
  },
  find: ({ face, subject, before, after, coordinates, owner, isGraphql }) =>
    face === "ask" && before?.required === false && after?.required === true
      ? {
          message: `\`${subject}\` has to be sent now; it was optional.`,
          verdict: verdicts.bothBreak,
          coordinates: [
            ...(isGraphql ? owner.filter((each) => !each.endsWith("{}")) : []),
            ...coordinates.flatMap((each) => [printCoordinate(each, "omitted"), printCoordinate(each, "maybeNull")]),
          ],
          word: null,
        }
      : undefined,
});
