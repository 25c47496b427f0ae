import type { Shape } from "../../contract/model.js";
import { verdicts, type Verdict } from "../change.js";
import { placesOf, resolvedAfter, resolvedBefore, type ChangeContext, type ReferencePair } from "../changeContext.js";
import { shapeWords } from "../shapeWords.js";

/**
 * A value has another type.
 *
 * The law: another type breaks both clocks; between integers and numbers only one direction is refused; another format
 * of the same text is seen by the server, not by the compiler.
 *
 * @returns true when the two shapes can still be compared inside
 */
export function typeChanged(pair: ReferencePair, context: ChangeContext): boolean {
  const before = resolvedBefore(pair, context).shape;
  const after = resolvedAfter(pair, context).shape;
  if (family(before) === family(after)) {
    formatChanged(pair, before, after, context);
    return true;
  }
  const { face, subject } = pair;
  const message = `\`${subject}\` was ${shapeWords(before)} and is ${shapeWords(after)}.`;
  const code = face === "ask" ? "ask.type.changed" : "answer.type.changed";
  context.report(code, face, subject, message, { verdict: judge(before, after, face), ...placesOf(pair) });
  return false;
}

/** Shapes of one family differ in detail, which other rules look at. */
function family(shape: Shape): string {
  switch (shape.kind) {
    case "literal":
      return typeof shape.value === "string" ? "choice" : `literal ${typeof shape.value}`;
    case "choice":
      return "choice";
    case "map":
    case "record":
      return "record";
    case "any":
      return `any ${shape.scalar ?? ""}`;
    default:
      return shape.kind;
  }
}

function judge(before: Shape, after: Shape, face: "ask" | "answer"): Verdict {
  const [narrow, wide] = face === "answer" ? [before, after] : [after, before];
  // Read widening (or ask narrowing) of numbers compiles in TypeScript and is seen by the other side alone.
  if (narrow.kind === "integer" && wide.kind === "number")
    return face === "answer" ? verdicts.appsRisky : verdicts.appsBreak;
  if (narrow.kind === "number" && wide.kind === "integer") return verdicts.harmless;
  if (isChoice(before) && after.kind === "text")
    return face === "answer" ? verdicts.codeRiskyAppsBreak : verdicts.harmless;
  if (before.kind === "text" && isChoice(after)) return face === "answer" ? verdicts.codeRisky : verdicts.bothBreak;
  if (before.kind === "any" && before.scalar === undefined)
    return face === "answer" ? verdicts.codeRisky : verdicts.bothBreak;
  if (after.kind === "any" && after.scalar === undefined && face === "ask") return verdicts.harmless;
  return verdicts.bothBreak;
}

function isChoice(shape: Shape): boolean {
  return shape.kind === "choice" || shape.kind === "literal";
}

function formatChanged(pair: ReferencePair, before: Shape, after: Shape, context: ChangeContext): void {
  if (before.kind !== "text" || after.kind !== "text" || before.format === after.format) return;
  const { face, subject } = pair;
  const idSwap = before.format === "id" || after.format === "id";
  const message = `\`${subject}\` was ${shapeWords(before)} and is ${shapeWords(after)}.`;
  if (face === "answer") {
    const verdict = idSwap || after.format === undefined ? verdicts.harmless : verdicts.appsRisky;
    context.report("answer.format.changed", face, subject, message, { verdict, ...placesOf(pair) });
    return;
  }
  const verdict = idSwap ? verdicts.bothBreak : after.format === undefined ? verdicts.harmless : verdicts.appsBreak;
  context.report("ask.format.changed", face, subject, message, { verdict, ...placesOf(pair) });
}
