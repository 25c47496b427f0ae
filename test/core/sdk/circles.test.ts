import { describe, expect, it } from "vitest";
import { circles } from "../../../src/core/sdk/lower/values/circles.js";
import { Randomness } from "../../proof/random/randomness.js";

type Steps = ReadonlyMap<string, readonly string[]>;

/** Random graphs: some with hardly a circle, some that are one. */
function randomGraph(random: Randomness): Steps {
  const keys = Array.from({ length: 1 + random.below(12) }, (_, at) => `type ${String(at)}`);
  const steps = random.below(2 * keys.length + 1);
  const graph = new Map<string, string[]>(keys.map((key) => [key, []]));
  for (let step = 0; step < steps; step++) graph.get(random.pick(keys))?.push(random.pick(keys));
  return graph;
}

/** By the simple definition. */
function leads(graph: Steps, from: string, to: string): boolean {
  const all = new Set([from]);
  for (const key of all) for (const next of graph.get(key) ?? []) all.add(next);
  return all.has(to);
}

describe("cycles", () => {
  it("are found in 500 random graphs", () => {
    let found = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const graph = randomGraph(new Randomness(seed));
      const isCircle = circles(graph.keys(), (key) => graph.get(key) ?? []);
      for (const one of graph.keys())
        for (const other of graph.keys()) {
          const expected = leads(graph, one, other) && leads(graph, other, one);
          if (expected && one !== other) found++;
          expect(isCircle(one, other), `seed ${String(seed)}, ${one} and ${other}`).toBe(expected);
        }
    }
    expect(found).toBeGreaterThan(1000);
  });

  it("of 100,000 types are found without deep recursion", () => {
    const next = (key: string): string[] => [String((Number(key) + 1) % 100_000)];
    expect(circles(["0"], next)("3", "99999")).toBe(true);
  });
});
