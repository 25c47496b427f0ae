import type { Field } from "../contract/model.js";
import { verdicts } from "./change.js";
import type { ChangeContext } from "./changeContext.js";
import { compareReferences } from "./compareReferences.js";

/** Compares the types of two fields; another named type is another type, however alike it is. */
export function compareFieldTypes(
  before: Field,
  after: Field,
  face: "ask" | "answer",
  subject: string,
  coordinates: readonly string[],
  context: ChangeContext,
): void {
  // That null can no longer be sent is the same news as that something has to be sent.
  const toldAlready = face === "ask" && !before.required && after.required;
  compareReferences(
    {
      before: toldAlready ? { ...before.type, nullable: after.type.nullable } : before.type,
      after: after.type,
      face,
      subject,
      placeBefore: before.place,
      placeAfter: after.place,
      coordinates,
    },
    context,
    (left, right) => {
      if (left === right) return;
      const code = face === "ask" ? "ask.type.changed" : "answer.type.changed";
      context.report(code, face, subject, `\`${subject}\` was ${left} and is ${right}.`, {
        verdict: verdicts.bothBreak,
        before: before.place,
        after: after.place,
        coordinates,
      });
    },
  );
  if (
    face === "ask" &&
    JSON.stringify(before.default) !== JSON.stringify(after.default) &&
    after.default !== undefined
  ) {
    const message = `When \`${subject}\` is absent the server takes ${JSON.stringify(after.default)}; it took ${before.default === undefined ? "nothing" : JSON.stringify(before.default)}.`;
    context.report("ask.default.changed", face, subject, message, {
      verdict: verdicts.appsRisky,
      before: before.place,
      after: after.place,
      coordinates: coordinates.map((each) => `${each}?`),
    });
  }
}
