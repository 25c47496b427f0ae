import type { ShapeTable } from "../contract/resolveShape.js";
import type { Change } from "./change.js";
import type { PointKind, Points } from "./compare/points.js";
import type { Signatures } from "./compare/renamedTo.js";
import type { Rule } from "./rule.js";
import { rules } from "./rules/index.js";
import type { SdkFacts } from "./sdkFacts.js";

/** The state of a comparison: its facts, and what happens with each point. */
export interface ChangeContext {
  /** The named shapes of each side. */
  readonly before: ShapeTable;
  readonly after: ShapeTable;
  readonly facts: SdkFacts;
  readonly isGraphql: boolean;
  readonly signatures: Signatures;
  /** GraphQL: returns the interfaces and unions of a type of the new schema. */
  readonly joins?: (type: string) => readonly string[];
  readonly at: <K extends PointKind>(kind: K, point: Points[K]) => void;
}

const rulesAt = new Map<PointKind, Rule[]>();
for (const rule of rules as readonly Rule[]) {
  const known = rulesAt.get(rule.at);
  if (known) known.push(rule);
  else rulesAt.set(rule.at, [rule]);
}

/**
 * Applies every rule to a point and adds the changes that they find.
 *
 * @param changes extended in place
 * @param operations returns the labels of operations that use the compared part; called only for a change
 */
export function applyRules<K extends PointKind>(
  changes: Change[],
  kind: K,
  {
    point,
    facts,
    operations = () => [],
  }: {
    readonly point: Points[K];
    readonly facts: SdkFacts;
    readonly operations?: (() => readonly string[]) | undefined;
  },
): void {
  for (const rule of rulesAt.get(kind) ?? []) {
    const finding = rule.find(point, facts);
    if (!finding) continue;
    const {
      message,
      verdict,
      hint,
      verdictAt,
      joins,
      kept,
      isUnpromised,
      hitsWholeMatches,
      hitsNamedTypes,
      isOfNull,
      spares,
      endangers,
      unwrapped,
    } = finding;
    const word = finding.word === undefined ? point.word : finding.word;
    changes.push({
      code: rule.code as Change["code"],
      at: rule.at,
      ...rule.traits,
      face: point.face,
      subject: point.subject,
      message,
      verdict,
      ...(point.placeBefore ? { before: point.placeBefore } : {}),
      ...(point.placeAfter ? { after: point.placeAfter } : {}),
      ...(word === undefined || word === null ? {} : { word }),
      ...(hint === undefined ? {} : { hint }),
      ...(verdictAt === undefined ? {} : { verdictAt }),
      ...(joins === undefined ? {} : { joins }),
      ...(kept === undefined ? {} : { kept }),
      ...(isUnpromised === true ? { isUnpromised } : {}),
      ...(hitsNamedTypes === true ? { hitsNamedTypes } : {}),
      ...(isOfNull === true ? { isOfNull } : {}),
      ...(spares === undefined ? {} : { spares }),
      ...(endangers === undefined ? {} : { endangers }),
      ...(unwrapped === undefined ? {} : { unwrapped }),
      ...(hitsWholeMatches === true ? { hitsWholeMatches } : {}),
      operations: operations(),
      coordinates: finding.coordinates ?? point.coordinates,
    });
  }
}
