import type { Shape } from "../contract/model.js";
import type { Points } from "./compare/points.js";
import type { Finding } from "./rule.js";
import type { SdkFacts } from "./sdkFacts.js";
import { shapeWords } from "../contract/shapeWords.js";
import { inDocuments, ofNumbers } from "./typeFinding.js";
import { verdicts, type Level } from "./verdict.js";

/** Returns the change if a value has another format; undefined if it has not. */
export function formatFinding(point: Points["value"], facts: SdkFacts): Finding | undefined {
  const { subject, face, before, after } = point;
  const left = before.shape;
  const right = after.shape;
  if (left.kind !== right.kind) return undefined;
  if (left.kind !== "text" && left.kind !== "integer" && left.kind !== "number") return undefined;
  if (!("format" in right) && left.format === undefined) return undefined;
  const from = left.format;
  const to = (right as typeof left).format;
  if (from === to) return undefined;
  const message = `\`${subject}\` was ${shapeWords(left)} and is ${shapeWords(right)}.`;
  const isSame = facts.leafType(left) === facts.leafType(right);
  const code: Level = isSame ? "compatible" : "breaking";
  if (from === "id" || to === "id") {
    // The text in the request or response is the same.
    const finding = { message, verdict: verdicts.harmless };
    return point.face === "ask" ? inDocuments(point, finding) : finding;
  }
  const apps = face === "answer" ? answered(left, from, { to, facts }) : asked(left, from, to);
  // A format without any meaning is not worth a line.
  return code === "compatible" && apps === "compatible" && left.kind === "number"
    ? undefined
    : { message, verdict: { code, apps }, spares: left.kind === "text" ? ["shows", "orders"] : ofNumbers };
}

function answered(
  shape: Shape,
  from: string | undefined,
  { to, facts }: { readonly to: string | undefined; readonly facts: SdkFacts },
): Level {
  if (facts.decodes(shape)) return "breaking";
  if (shape.kind === "integer") return width(to) > width(from) ? "risky" : "compatible";
  if (shape.kind === "number") return "compatible";
  return from === undefined ? "compatible" : "risky";
}

function asked(shape: Shape, from: string | undefined, to: string | undefined): Level {
  if (shape.kind === "integer") return width(to) < width(from) ? "breaking" : "compatible";
  if (shape.kind === "number") return "compatible";
  return to === undefined ? "compatible" : "breaking";
}

/** 64 bits unless the format has fewer. */
function width(format: string | undefined): number {
  return format === "int32" ? 32 : format === "int16" ? 16 : format === "int8" ? 8 : 64;
}
