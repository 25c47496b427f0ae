import { describe, expect, it } from "vitest";
import { Reachability } from "../../../src/core/change/judge/reachability.js";
import { Randomness } from "../../proof/random/randomness.js";

describe("reachable nodes", () => {
  it("are those that a walk from each node finds, also in cycles", () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = new Randomness(seed);
      const below = (count: number): number => random.below(count);
      const nodes = Array.from({ length: 3 + below(40) }, (_, at) => `n${String(at)}`);
      const edges = Array.from(
        { length: below(70) },
        () => [nodes[below(nodes.length)], nodes[below(nodes.length)]] as const,
      );
      const graph = new Reachability();
      for (const [from = "", to = ""] of edges) graph.add(from, to);
      const wanted = nodes.filter(() => below(2) === 0);
      const reached = graph.reaching(wanted);
      for (const node of [...nodes, "nowhere"]) {
        const seen = new Set([node]);
        for (const each of seen) for (const [from, to = ""] of edges) if (from === each) seen.add(to);
        expect(reached(node)).toEqual(wanted.filter((each) => seen.has(each)));
      }
    }
  });
});
