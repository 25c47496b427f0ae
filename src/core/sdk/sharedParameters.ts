import { sortedBy } from "../text/sortedBy.js";
import type { RestCall } from "./sdkPlan.js";

/** With fewer calls, no parameter counts as shared. */
const fewestCalls = 4;

/** Returns parameters that are the same in at least half of the calls and in no path, the most frequent first. */
export function sharedParameters(calls: readonly RestCall[]): { name: string; count: number }[] {
  if (calls.length < fewestCalls) return [];
  const counts = new Map<string, number>();
  for (const call of calls) {
    const names = call.arguments.flatMap(({ source }) =>
      source.kind === "parameter" && ["header", "query", "cookie"].includes(source.parameter.in)
        ? [source.parameter.name]
        : [],
    );
    for (const name of new Set(names)) counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  const shared = [...counts].filter(([, count]) => count * 2 >= calls.length);
  return sortedBy(shared, ([name]) => name).map(([name, count]) => ({ name, count }));
}
