import type { RefusedQuery } from "../../graphql/documents/refusedQueries.js";
import type { Place } from "../../problem/place.js";
import type { Change } from "../change.js";
import type { PointKind } from "../compare/points.js";
import { distinct, inReportOrder, judgeUse, type ProjectUses } from "./impact.js";
import type { JudgedChange } from "./judgedChange.js";
import { goneQueries, hitsAny } from "./refusedOperations.js";
import { heavier, type Level } from "../verdict.js";

/** What one SDK of a GraphQL contract makes of a change of its schema, and what source uses of it. */
export interface SeenThroughSdk {
  readonly sdk: string;
  /** What differs between the SDK that is and the one to come (`comparePlans`). */
  readonly differences: readonly Change[];
  readonly uses: Pick<ProjectUses, "source" | "unknown">;
}

/**
 * Says of changes of a schema that query documents use what they do to source: what selects a field need not read it, and
 * what tells types apart need not name them all. A change breaks source where the SDK differs because of it in
 * something that source uses so that it no longer compiles; where the SDK does not differ, it is compatible.
 *
 * @param refused what the new schema refuses of the documents: such a query breaks, whatever source makes of its answer
 * @returns the changes, and those differences that break source and that no change of the schema explains
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
        // SDKs of one language differ in the same.
        unexplained.set(JSON.stringify([difference.code, difference.face, difference.subject]), {
          ...difference,
          verdict: { ...difference.verdict, apps: "compatible" },
        });
  }
  return inReportOrder([...judged, ...unexplained.values()]);
}

/** Whether source decides: of a change that a query uses, and of which source was not asked yet. */
function isAsked({ use, at }: JudgedChange): boolean {
  return use === "used" && at !== "name";
}

/** The change with what its differences in one SDK do to source. */
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
 * The changes of the schema that a difference in the SDK comes of: the same change of the same thing, else what hits the
 * selection that differs, else what hits the query.
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
