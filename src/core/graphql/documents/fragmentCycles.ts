import type { FragmentDefinitionNode, FragmentSpreadNode } from "graphql";
import { problem, type Problem } from "../../problem/problem.js";
import { placeOfNode } from "../graphqlPlace.js";
import { definitionParts } from "./definitionParts.js";

/**
 * Returns the circles of fragments that spread each other (GraphQL specification, section 5.5.2.2), each circle once.
 */
export function fragmentCycles(fragments: readonly FragmentDefinitionNode[]): Problem[] {
  const spreads = new Map(fragments.map((fragment) => [fragment.name.value, definitionParts(fragment).spreads]));
  const done = new Set<string>();
  const problems: Problem[] = [];
  const follow = (name: string, path: readonly { name: string; spread: FragmentSpreadNode }[]): void => {
    const from = path.findIndex((step) => step.name === name);
    if (from !== -1) {
      problems.push(cycle(path.slice(from)));
      return;
    }
    if (done.has(name)) return;
    for (const spread of spreads.get(name) ?? []) follow(spread.name.value, [...path, { name, spread }]);
    done.add(name);
  };
  for (const name of [...spreads.keys()].sort()) follow(name, []);
  return problems;
}

function cycle(steps: readonly { readonly name: string; readonly spread: FragmentSpreadNode }[]): Problem {
  const names = [...steps.map(({ name }) => name), steps[0]?.name ?? ""].map((name) => `\`${name}\``);
  const message =
    steps.length === 1
      ? `The fragment ${names[0] ?? ""} spreads itself.`
      : `Fragments spread each other in a cycle: ${names.join(" -> ")}.`;
  return problem("query.cycle", message, {
    places: steps.map(({ spread }) => placeOfNode(spread)),
    hint: "Remove one of these spreads.",
  });
}
