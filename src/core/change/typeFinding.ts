import { isArgument, printCoordinate, type Coordinate } from "../use/coordinate.js";
import type { Shape, TupleShape } from "../contract/model.js";
import type { SourceUseKind } from "../use/sourceUse.js";
import type { Points } from "./compare/points.js";
import type { Finding } from "./rule.js";
import type { SdkFacts } from "./sdkFacts.js";
import { shapeFamily } from "./compare/shapeFamily.js";
import { shapeWords } from "../contract/shapeWords.js";
import { heavier, verdicts, type Verdict } from "./verdict.js";

/**
 * Returns the change if a value has another type; undefined if it has not. Unions are compared member by member and
 * never get here.
 */
export function typeFinding(point: Points["value"], facts: SdkFacts): Finding | undefined {
  const { subject, face } = point;
  const before = point.before.shape;
  const after = point.after.shape;
  if (before.kind === "union" || after.kind === "union") return undefined;
  if (shapeFamily(before) === shapeFamily(after)) return ofChoices(subject, before, { after, facts });
  const message =
    before.kind === "tuple" && after.kind === "tuple"
      ? `\`${subject}\` was ${partsOf(before)} and is ${partsOf(after)}.`
      : `\`${subject}\` was ${shapeWords(before)} and is ${shapeWords(after)}.`;
  const isAnswer = face === "answer";
  const verdict = isAnswer
    ? answered(before, after, facts)
    : asked(before, after, { facts, isShared: point.isShared === true });
  if (point.isWritten === true && isAnyText(after) && isLeaf(before))
    return { message, verdict: { code: verdict.code, apps: "compatible" }, spares: ["shows"] };
  const finding = {
    message,
    verdict: isAnswer ? verdict : takenAlone(point, verdict),
    kept: point.kept,
    spares: sparedOf(before, after),
  };
  return isAnswer || !point.isGraphql ? finding : inDocuments(point, finding);
}

/** An enum with one value left is a constant in source, without a type of its own, and vice versa. */
function ofChoices(
  subject: string,
  before: Shape,
  { after, facts }: { readonly after: Shape; readonly facts: SdkFacts },
): Finding | undefined {
  const [was, is] = [before, after].map((shape) => isTypeOfItsOwn(shape, facts));
  if (was === is || (before.kind !== "literal" && after.kind !== "literal")) return undefined;
  const message = `\`${subject}\` was ${shapeWords(before)} and is ${shapeWords(after)}, which is another type in your code.`;
  return { message, verdict: verdicts.codeBreaks, spares: ["shows"] };
}

/** The uses that are still possible for a value of another type. */
function sparedOf(before: Shape, after: Shape): readonly SourceUseKind[] {
  if (isNumber(before) && isNumber(after)) return ofNumbers;
  // Numbers and strings can be sorted, whichever they are.
  return isLeaf(after) || after.kind === "text" ? ["shows", "orders"] : ["shows"];
}

/** The uses that are possible for every number type. */
export const ofNumbers: readonly SourceUseKind[] = ["shows", "orders", "computes"];

function isNumber({ kind }: Shape): boolean {
  return kind === "integer" || kind === "number";
}

/** A single value may count as a list of one. Source has another type for it. */
function takenAlone({ asListOfOne, coordinates, before: { shape } }: Points["value"], verdict: Verdict): Verdict {
  if (asListOfOne === undefined) return verdict;
  if (isWrittenOut(coordinates)) return verdicts.harmless;
  // A string may contain the separator at which it is split.
  return asListOfOne === "whole" || isLeaf(shape) ? verdicts.codeBreaks : verdicts.codeBreaksAppsRisky;
}

/**
 * Returns a finding for GraphQL documents. A variable declares its type and is refused if another one is expected. A
 * literal in a document is rated once, and the value of a variable each time it is sent.
 */
export function inDocuments({ coordinates }: Points["value"], { message, verdict }: Finding): Finding {
  const sent = coordinates.map((coordinate) => printCoordinate(coordinate, "variable"));
  return {
    message,
    verdict: isWrittenOut(coordinates) ? { code: heavier(verdict.code, verdict.apps), apps: verdict.apps } : verdict,
    coordinates: [...coordinates, ...sent],
    verdictAt: new Map(sent.map((coordinate) => [coordinate, verdicts.bothBreak])),
  };
}

/** Whether it is an argument, whose value is in the document or comes from a variable. */
function isWrittenOut(coordinates: readonly Coordinate[]): boolean {
  return coordinates.some(isArgument);
}

/** A string that any value becomes when it is written. */
function isAnyText(shape: Shape): boolean {
  return shape.kind === "text" && shape.format === undefined && shape.constraints?.pattern === undefined;
}

function isLeaf({ kind }: Shape): boolean {
  return kind === "integer" || kind === "number" || kind === "boolean";
}

function partsOf({ items, needed = items.length, rest }: TupleShape): string {
  const count = needed === items.length ? String(needed) : `${String(needed)} to ${String(items.length)}`;
  return `a tuple of ${count} parts${rest ? " and more" : ""}`;
}

function answered(before: Shape, after: Shape, facts: SdkFacts): Verdict {
  const code = facts.leafType(before) === facts.leafType(after) ? "compatible" : "breaking";
  if (before.kind === "integer" && after.kind === "number")
    return { code, apps: facts.readsWhole || facts.decodes(before) ? "breaking" : "risky" };
  if (before.kind === "number" && after.kind === "integer")
    return { code, apps: facts.decodes(before) ? "risky" : "compatible" };
  const values = valueKind(before);
  if (values !== undefined && isWhole(after, values) && isTypeOfItsOwn(before, facts))
    return verdicts.codeBreaksAppsRisky;
  if (values !== undefined && isWhole(after, values))
    return facts.openChoices && values !== "boolean" ? verdicts.appsRisky : verdicts.codeRiskyAppsBreak;
  const newValues = valueKind(after);
  if (newValues !== undefined && isWhole(before, newValues) && isTypeOfItsOwn(after, facts)) return verdicts.codeBreaks;
  if (newValues !== undefined && isWhole(before, newValues))
    return facts.openChoices && newValues !== "boolean" ? verdicts.harmless : verdicts.codeRisky;
  if (isUnsaid(before)) return facts.unsaidTakesAll ? verdicts.codeRisky : verdicts.codeBreaks;
  if (before.kind === "tuple" && after.kind === "tuple") return tupleAnswered(before, after, facts.verifies);
  if (before.kind === "any" && after.kind === "any" && code === "compatible") return verdicts.appsRisky;
  return verdicts.bothBreak;
}

function asked(
  before: Shape,
  after: Shape,
  { facts, isShared }: { readonly facts: SdkFacts; readonly isShared: boolean },
): Verdict {
  const isSame = facts.leafType(before) === facts.leafType(after);
  if (before.kind === "integer" && after.kind === "number")
    return { code: isSame ? "compatible" : "breaking", apps: "compatible" };
  if (before.kind === "number" && after.kind === "integer")
    return { code: isSame ? "compatible" : "breaking", apps: "breaking" };
  const values = valueKind(before);
  if (values !== undefined && isWhole(after, values))
    return isTypeOfItsOwn(before, facts) ? verdicts.codeBreaks : verdicts.harmless;
  if (isUnsaid(after)) return facts.unsaidTakesAll || isSame ? verdicts.harmless : verdicts.codeBreaks;
  // A type that is also in responses is as open as responses are.
  const isOpened = facts.openChoices && isShared && before.kind === "text" && valueKind(after) === "string";
  if (isOpened && !isTypeOfItsOwn(after, facts)) return verdicts.appsBreak;
  if (before.kind === "tuple" && after.kind === "tuple") return tupleAsked(before, after);
  return verdicts.bothBreak;
}

/** Whether an enum has a type of its own in source. A single value is a constant. */
function isTypeOfItsOwn({ kind }: Shape, { choicesArePlain }: SdkFacts): boolean {
  return kind === "choice" && !choicesArePlain;
}

/** Code that checks only the length sees additional parts, and code that reads them sees missing parts. */
function tupleAnswered(before: TupleShape, after: TupleShape, verifies: boolean): Verdict {
  const needed = ({ items, needed = items.length }: TupleShape): number => needed;
  const longest = ({ items, rest }: TupleShape): number => (rest ? Infinity : items.length);
  if (needed(after) < needed(before)) return verdicts.bothBreak;
  if (longest(after) <= longest(before)) return verdicts.codeRisky;
  return verifies ? verdicts.codeRiskyAppsBreak : verdicts.bothRisky;
}

/** Code that sends as many parts as before is accepted as long as neither fewer nor more are required. */
function tupleAsked(before: TupleShape, after: TupleShape): Verdict {
  const needed = ({ items, needed = items.length }: TupleShape): number => needed;
  const longest = ({ items, rest }: TupleShape): number => (rest ? Infinity : items.length);
  const isTaken = needed(after) <= needed(before) && longest(after) >= longest(before);
  return isTaken ? verdicts.harmless : verdicts.bothBreak;
}

/** The common type of all values of an enum. */
function valueKind(shape: Shape): string | undefined {
  const values =
    shape.kind === "literal" ? [shape.value] : shape.kind === "choice" ? shape.values.map(({ value }) => value) : [];
  const kinds = new Set(values.map((value) => typeof value));
  return kinds.size === 1 ? [...kinds][0] : undefined;
}

/** Whether a shape accepts every value of a type. */
function isWhole(shape: Shape, kind: string): boolean {
  if (kind === "string") return shape.kind === "text";
  if (kind === "boolean") return shape.kind === "boolean";
  return shape.kind === "number" || shape.kind === "integer";
}

function isUnsaid(shape: Shape): boolean {
  return shape.kind === "any" && shape.scalar === undefined;
}
