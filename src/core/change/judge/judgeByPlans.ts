import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { Place } from "../../problem/place.js";
import type { Change } from "../change.js";
import type { PointKind } from "../compare/points.js";
import { distinct, inReportOrder, judgeUse, type ProjectUses } from "./impact.js";
import type { JudgedChange } from "./judgedChange.js";
import { goneQueries, hitsAny } from "./refusedOperations.js";
import { heavier, type Level } from "../verdict.js";

/** The effect of a schema's change on one SDK, and the uses of the SDK in source. */
export interface SeenThroughSdk {
  readonly sdk: string;
  /** The differences between the current SDK and the new one (`comparePlans`). */
  readonly differences: readonly Change[];
  readonly uses: Pick<ProjectUses, "source" | "unknown">;
}

/**
 * Rates changes of a schema in use by what they do to source. A query that selects a field does not have to read it,
 * and code that distinguishes types does not have to list them all. A change breaks source if it causes a difference in
 * the SDK with which a use no longer compiles. Without a difference in the SDK, it is compatible.
 *
 * @param refused the errors of the documents with the new schema: such a query breaks, whatever source does with its
 * response
 * @returns the changes, and the differences that break source and that no change of the schema explains
 */
export function judgeByPlans(
  changes: readonly JudgedChange[],
  seen: readonly SeenThroughSdk[],
  refused: readonly RefusedQuery[],
): readonly JudgedChange[] {
  const gone = goneQueries(changes, refused);
  let judged = changes;
  const unexplained = new Map<string, JudgedChange>();
  for (const { sdk, differences, uses } of seen) {
    const known = judgeUse(differences, "rest", { queries: [], searched: true, ...uses });
    const causes = new Map(known.map((difference) => [difference, causesOf(difference, changes)]));
    judged = judged.map((change, at) => {
      const cause = changes[at];
      if (!cause || !isAsked(cause) || hitsAny(cause, gone)) return change;
      return throughSdk(
        change,
        sdk,
        known.filter((difference) => causes.get(difference)?.includes(cause)),
      );
    });
    for (const difference of known)
      if (difference.use === "used" && difference.verdict.code === "breaking" && causes.get(difference)?.length === 0)
        // SDKs of one language have the same differences.
        unexplained.set(JSON.stringify([difference.code, difference.face, difference.subject]), {
          ...difference,
          verdict: { ...difference.verdict, apps: "compatible" },
        });
  }
  return inReportOrder([...judged, ...unexplained.values()]);
}

/** Whether source decides: a query uses the changed part, and source was not searched yet. */
function isAsked({ use, at }: JudgedChange): boolean {
  return use === "used" && at !== "name";
}

/** The change with the effect of its differences in one SDK. */
function throughSdk(change: JudgedChange, sdk: string, differences: readonly JudgedChange[]): JudgedChange {
  const isUnclear = differences.some(({ use }) => use === "cannot tell");
  const used = differences.filter(({ use }) => use === "used");
  const level = used.map(({ verdict }) => verdict.code).reduce<Level>(heavier, "compatible");
  const settled = (code: Level): Level =>
    level === "breaking" || (code !== "compatible" && !isUnclear) ? level : code;
  const ofSource = used.filter(({ verdict }) => verdict.code !== "compatible").flatMap((each) => each.hits);
  const hits = distinct([...change.hits, ...ofSource]);
  const sdks = change.sdks?.map((each) => (each.sdk === sdk ? { ...each, code: settled(each.code) } : each));
  const code = sdks
    ? sdks
        .filter(({ use }) => use !== "not used")
        .map((each) => each.code)
        .reduce<Level>(heavier, "compatible")
    : settled(change.verdict.code);
  return { ...change, hits, ...(sdks ? { sdks } : {}), verdict: { ...change.verdict, code } };
}

/**
 * The changes of the schema that cause a difference in the SDK: the same change of the same part, otherwise those of
 * the selection, otherwise those of the query.
 */
function causesOf(difference: Change, changes: readonly JudgedChange[]): readonly JudgedChange[] {
  const { before: place, operations } = difference;
  const used = changes.filter(isAsked);
  const named = used.filter(({ subject, face }) => face === difference.face && subject === difference.subject);
  const same = named.filter(({ code }) => code === difference.code);
  const here = used.filter(({ hits }) => place !== undefined && hits.some((hit) => isSamePlace(hit.place, place)));
  const alike = here.filter(({ code }) => code === difference.code);
  const kindred = here.filter((each) => kindOfPlace(each) === kindOfPlace(difference));
  const [found] = [same, named, alike, kindred, here].filter(({ length }) => length > 0);
  if (found) return found;
  return used.filter(({ hits }) =>
    hits.some((hit) => [hit.owner, ...hit.operations].some((each) => operations.includes(each))),
  );
}

/** Types that implement an interface are its members. */
function kindOfPlace({ at }: Change): PointKind {
  return at === "implementation" ? "member" : at;
}

function isSamePlace(a: Place, b: Place): boolean {
  return "offset" in a && "offset" in b && a.document === b.document && a.offset === b.offset;
}
