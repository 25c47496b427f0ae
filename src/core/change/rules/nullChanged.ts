import { verdicts } from "../change.js";
import { placesOf, resolvedAfter, resolvedBefore, type ChangeContext, type ReferencePair } from "../changeContext.js";

/**
 * Null came or went.
 *
 * The law: an answer that can newly be null breaks its readers; an ask that can no longer be null breaks its senders.
 */
export function nullChanged(pair: ReferencePair, context: ChangeContext): void {
  const before = resolvedBefore(pair, context);
  const after = resolvedAfter(pair, context);
  // A value nobody said anything about could always be null.
  if (before.nullable === after.nullable || before.shape.kind === "any" || after.shape.kind === "any") {
    const bothScalars = before.shape.kind === "any" && after.shape.kind === "any" && before.shape.scalar !== undefined;
    if (!bothScalars || before.nullable === after.nullable) return;
  }
  const { face, subject } = pair;
  if (after.nullable) {
    if (face === "answer")
      context.report("answer.null.gained", face, subject, `\`${subject}\` can now be null in answers.`, {
        verdict: verdicts.bothBreak,
        ...placesOf(pair),
        hint: "Handle null where it is read.",
      });
    else
      context.report("ask.null.gained", face, subject, `\`${subject}\` can now be sent as null.`, {
        verdict: verdicts.harmless,
        ...placesOf(pair),
      });
    return;
  }
  if (face === "ask")
    context.report("ask.null.lost", face, subject, `\`${subject}\` can no longer be sent as null.`, {
      verdict: verdicts.bothBreak,
      ...placesOf(pair),
      hint: "Leave it out, or send a value.",
    });
  else {
    const verdict = context.before.protocol === "graphql" ? verdicts.appsRisky : verdicts.harmless;
    context.report("answer.null.lost", face, subject, `\`${subject}\` is never null in answers any more.`, {
      verdict,
      ...placesOf(pair),
    });
  }
}
