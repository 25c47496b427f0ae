import { isMemberOrVariable, isSharedKey, nameOf, printCoordinate, type Coordinate } from "../../use/coordinate.js";
import type { Contract } from "../../contract/model.js";
import type { Ways } from "../../graphql/documents/memberNeeds.js";
import type { QueryUse } from "../../graphql/documents/queryModel.js";
import { groupedBy } from "../../text/groupedBy.js";
import { byCodeUnit } from "../../text/sortedBy.js";
import type { Change } from "../change.js";
import { byWeight, heavier, type Level, type Verdict } from "../verdict.js";
import { compareGraphql } from "../compare/compareGraphql.js";
import { compareRest } from "../compare/compareRest.js";
import type { Hit, JudgedChange } from "./judgedChange.js";
import type { SdkFacts } from "../sdkFacts.js";
import { SourceIndex, type SourceUse } from "../../use/sourceUse.js";

/** This project's uses of a contract. */
export interface ProjectUses {
  readonly queries: readonly QueryUse[];
  /** The uses of the SDKs in source; absent if source was not searched. */
  readonly source?: readonly SourceUse[];
  /** SDKs whose uses in source are unknown. */
  readonly unknown?: readonly string[];
  /** For a schema, whether query documents are known. */
  readonly searched: boolean;
}

/**
 * Compares two versions of a contract.
 *
 * @param facts the facts of the SDK's language and settings
 * @returns the changes, without those that were never promised
 * @throws Error if the two have different protocols
 */
export function compareContracts(before: Contract, after: Contract, facts: SdkFacts): Change[] {
  return comparedWhole(before, after, facts).filter(({ isUnpromised }) => isUnpromised !== true);
}

/**
 * Compares two versions of a contract, with changes of parts that were never promised. @throws Error if the two have
 * different protocols
 */
export function comparedWhole(before: Contract, after: Contract, facts: SdkFacts): Change[] {
  if (before.protocol === "rest" && after.protocol === "rest") return compareRest(before, after, facts);
  if (before.protocol === "graphql" && after.protocol === "graphql") return compareGraphql(before, after, facts);
  throw new Error(`${before.name} was ${before.protocol} and is ${after.protocol}.`);
}

/**
 * Adds to each change whether and where this project uses the changed part.
 *
 * @param uses the uses in query documents and source
 * @returns the changes, those in use and with the highest level first
 */
export function judgeUse(
  changes: readonly Change[],
  protocol: Contract["protocol"],
  uses: ProjectUses,
): JudgedChange[] {
  const source = uses.source && new SourceBySdk(uses.source, uses.unknown ?? []);
  const judged = changes.map((change): JudgedChange => {
    if (source && (protocol === "rest" || change.at === "name")) return judgeForSdks(change, source);
    const found = protocol === "graphql" ? queryUses(change, uses.queries) : [];
    const hits = found.map(hitOf);
    const isKnown = protocol === "graphql" && uses.searched;
    const use = hits.length > 0 ? "used" : isKnown ? "not used" : "cannot tell";
    const { sdks, ...whole } = change;
    return {
      ...whole,
      ...(sdks ? { sdks: sdks.map((each) => ({ ...each, use })) } : {}),
      verdict: verdictOn(change, found),
      hits: distinct(hits),
      use,
    };
  });
  return inReportOrder(judged.filter(({ isUnpromised, use }) => isUnpromised !== true || use === "used"));
}

/** Sorts changes for reports: those in use first, then by level. */
export function inReportOrder(changes: readonly JudgedChange[]): JudgedChange[] {
  const rank = { used: 0, "cannot tell": 1, "not used": 2 } as const;
  return [...changes].sort(
    (a, b) =>
      rank[a.use] - rank[b.use] ||
      byWeight(a.verdict, b.verdict) ||
      byCodeUnit(a.subject, b.subject) ||
      byCodeUnit(a.code, b.code) ||
      byCodeUnit(a.message, b.message),
  );
}

function queryUses(change: Change, uses: readonly QueryUse[]): QueryUse[] {
  const wanted = new Set(change.coordinates);
  return uses.filter((use) => wanted.has(use.coordinate) && fits(change, use));
}

function hitOf({ owner, operations, place, kind }: QueryUse): Hit {
  return { owner, operations, place, kind };
}

/** The highest verdict for its uses; the change's own if there are none. */
function verdictOn({ verdict, verdictAt }: Pick<Change, "verdict" | "verdictAt">, uses: readonly QueryUse[]): Verdict {
  if (!verdictAt) return verdict;
  const found = uses.map(({ coordinate }) => verdictAt.get(coordinate) ?? verdict);
  // Whether types have the same keys depends on documents, about which a contract alone says nothing.
  const others = [...verdictAt].flatMap(([coordinate, each]) => (isSharedKey(coordinate) ? [] : [each]));
  return (found.length > 0 ? found : [verdict, ...others]).reduce(heaviestOnEach);
}

/** The uses in source by SDK. */
class SourceBySdk {
  readonly all: SourceIndex;
  private readonly indexes: ReadonlyMap<string, SourceIndex>;

  constructor(
    uses: readonly SourceUse[],
    readonly unknown: readonly string[],
  ) {
    this.all = new SourceIndex(uses);
    this.indexes = new Map(
      [...groupedBy(uses, ({ sdk = "" }) => sdk)].map(([sdk, own]) => [sdk, new SourceIndex(own)]),
    );
  }

  of(sdk: string): SourceIndex {
    return this.indexes.get(sdk) ?? new SourceIndex([]);
  }
}

/** Rates a change for each SDK. Its verdict is that of the SDK in use that is affected most. */
function judgeForSdks({ sdks, ...change }: Change, source: SourceBySdk): JudgedChange {
  if (!sdks) {
    const judged = judgeSource(change, source.all);
    return judged.use === "not used" && source.unknown.length > 0 ? { ...judged, use: "cannot tell" } : judged;
  }
  const judged = sdks.map(({ sdk, code, coordinates, callers }) => {
    const forSdk = { ...change, coordinates, ...(callers ? { callers } : {}), verdict: { ...change.verdict, code } };
    const own = judgeSource(forSdk, source.of(sdk));
    return { sdk, own: source.unknown.includes(sdk) ? { ...own, use: "cannot tell" as const } : own };
  });
  const touched = judged.filter(({ own }) => own.use !== "not used");
  const uses = judged.map(({ own }) => own.use);
  const [first, ...others] = (touched.length > 0 ? touched : judged).map(({ own }) => own.verdict);
  const hint = touched.find(({ own }) => own.hint !== undefined)?.own.hint;
  return {
    ...change,
    ...(hint === undefined ? {} : { hint }),
    verdict: others.reduce(heaviestOnEach, first ?? change.verdict),
    sdks: judged.map(({ sdk, own }) => ({ sdk, code: own.verdict.code, coordinates: own.coordinates, use: own.use })),
    hits: distinct(judged.flatMap(({ own }) => own.hits)),
    use: uses.includes("used") ? "used" : uses.includes("cannot tell") ? "cannot tell" : "not used",
  };
}

function heaviestOnEach(one: Verdict, other: Verdict): Verdict {
  return { code: heavier(one.code, other.code), apps: heavier(one.apps, other.apps) };
}

/** Rates a change by what source does with the changed part, as the compiler sees it. */
function judgeSource(change: Omit<Change, "sdks">, source: SourceIndex): JudgedChange {
  const isName = change.at === "name";
  const found = source
    .usesOf(change.coordinates, change.face)
    .filter(({ kind, takesNull }) =>
      isName ? kind === "names" || kind === "tells" : change.isOfNull !== true || takesNull !== true,
    );
  // A response that is built by hand, as in a test, may not compile with another type. Only the compiler knows.
  const given = found.length === 0 && change.face === "answer" ? source.writesOf(change.coordinates) : [];
  const called = source.usesOf(change.callers ?? [], "operation");
  // A search that knows matches finds those that list all values, and these stop compiling.
  const matched = change.hitsWholeMatches === true ? source.usesOf(change.coordinates.map(whole), "operation") : [];
  const unwrapped = source.usesOf(change.unwrapped ?? [], "answer").filter(({ unwraps }) => unwraps === true);
  const hitting = [unwrapped, matched, found, given, called].find((uses) => uses.length > 0) ?? [];
  const hits = distinct(hitting.map(hitInSource));
  const isUnclear = found.length === 0 && source.mayReach(change.coordinates);
  const isBuilt =
    change.face === "answer" &&
    (change.at === "field" || change.at === "place") &&
    found.some(({ kind }) => isBuilding(kind));
  const spared: ReadonlySet<string> = new Set(change.spares);
  const endangered: ReadonlySet<string> = new Set(change.endangers);
  const onCode = (level: Level): Level => {
    if (unwrapped.length > 0) return "breaking";
    if (level === "risky" && matched.length > 0) return "breaking";
    // It is unknown whether a value that may be this one is unwrapped.
    if (level === "compatible" && source.mayReach(change.unwrapped ?? [])) return "risky";
    if (
      change.hitsNamedTypes === true &&
      hits.length > 0 &&
      hitting.every(
        ({ kind, isUntyped }) =>
          ["reads", "shows", "compares", "orders", "computes", "calls"].includes(kind) || isUntyped === true,
      )
    )
      return "compatible";
    // A literal without a written type has whatever number type is expected.
    if (hitting.length > 0 && hitting.every((use) => spared.has(use.kind) || (spared.has("computes") && use.isUntyped)))
      return "compatible";
    if (level === "breaking" && hits.length > 0 && hits.every(({ kind }) => endangered.has(kind))) return "risky";
    if (level === "compatible" || isUnclear) return level;
    if (found.length === 0 && hits.length > 0) return given.length > 0 ? "risky" : "compatible";
    // Code that builds a response by hand does not compile if more fields are required.
    return level === "risky" && isBuilt ? "breaking" : level;
  };
  // A value that is only built was not in a response, and a value that is only compared is not sent.
  const isRead = called.length > 0 || isUnclear || (hits.length > 0 && !hits.every(({ kind }) => isGiving(kind)));
  const { code, apps } = change.verdict;
  const isUnsent =
    change.face === "ask" && hits.length > 0 && hits.every(({ kind }) => kind === "matches" || kind === "tells");
  const isSpared = isUnsent || (change.face === "answer" && hits.length > 0 && !isRead);
  const isCalledAlone = found.length === 0 && given.length === 0 && hits.length > 0;
  return {
    ...change,
    ...(isCalledAlone ? { hint: readWhole } : {}),
    verdict: { code: onCode(code), apps: isSpared ? "compatible" : apps },
    hits,
    use: hits.length > 0 ? "used" : isUnclear ? "cannot tell" : "not used",
  };
}

/** The coordinate of a match that lists all values. */
function whole(coordinate: Coordinate): Coordinate {
  return printCoordinate(coordinate, "wholeMatch");
}

const readWhole =
  "The SDK decodes whole responses. In released apps these calls fail with such a response, whatever they use of it.";

function hitInSource({ coordinate, kind, place }: SourceUse): Hit {
  return { owner: nameOf(coordinate), operations: [], place, kind, isInSource: true };
}

function isBuilding(kind: string): boolean {
  return kind === "builds" || kind === "omits";
}

function isGiving(kind: string): boolean {
  return isBuilding(kind) || kind === "writes";
}

/** Whether a type that a response can now have lacks a key that is read from all types. */
function lacksKey(joins: readonly string[], keys: readonly Ways[]): boolean {
  return keys.some((ways) => !ways.some((way) => way.every((condition) => joins.includes(condition))));
}

/** A document that only reads an enum is not affected by values for requests, and vice versa. */
function fits(change: Change, use: QueryUse): boolean {
  const { kept } = change;
  if (use.selected && kept) return use.selected.some((each) => !kept.includes(each));
  if (use.keys && change.joins) return lacksKey(change.joins, use.keys);
  // A document that selects a field, or sends a value of a type, does not contain the type's name.
  if (change.hitsNames === true) return !["selects", "sends"].includes(use.kind) || isMemberOrVariable(use.coordinate);
  if (change.at !== "choice") return true;
  return change.face === "ask" ? use.kind === "sends" : use.kind !== "sends";
}

/** Returns hits without duplicates of a place. */
export function distinct(hits: readonly Hit[]): Hit[] {
  const seen = new Set<string>();
  return hits.filter((hit) => {
    const key = JSON.stringify(hit.place);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}
