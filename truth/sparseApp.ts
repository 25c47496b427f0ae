import { runInThisContext } from "node:vm";
import type { Randomness } from "../test/proof/random/randomness.js";
import { appTree, isBlock, type AppNode } from "./appTree.js";
import { componentOf, type ComponentKind } from "./appComponents.js";
import type { ExercisingApp } from "./exercise.js";
import type { WrittenCall } from "./restApps.js";

/** An app that uses little of an SDK. */
export interface SparseApp {
  /** The whole app as one script, with which the compiler finds the facts. */
  readonly script: string;
  /** The same as developers write it, by path in the source folder: a part of it is in templates. */
  readonly files: ReadonlyMap<string, string>;
  /** The calls that it makes. */
  readonly calls: readonly WrittenCall[];
  /** Whether all SDK names in it belong to calls that it makes. */
  readonly isWhole: boolean;
}

export interface Sparseness {
  readonly random: Randomness;
  /** Lines that are included whatever else is chosen. */
  readonly wanted: readonly number[];
  /** The SDK's module, as the app imports it. */
  readonly index: string;
  /** Returns whether a script compiles with the current SDK. */
  readonly compiles: (script: string) => boolean;
}

const mostLines = 14;

/** Takes a few lines of an app that uses everything, with the lines they need, and writes some of them as templates. */
export function sparseApp(app: ExercisingApp, { random, wanted, index, compiles }: Sparseness): SparseApp {
  const nodes = appTree(app.text);
  // Code that builds or names a type does not have to make a call with it.
  const isWhole = random.chance(0.7);
  const belongs = (line: number): boolean => !["build", "name"].includes(app.lines.get(line) ?? "");
  const all = [...app.lines.keys()].filter((line) => !isWhole || belongs(line));
  const count = 1 + random.below(mostLines);
  const chosen = [...wanted, ...Array.from({ length: count }, () => random.pick(all))];
  const kept = needed(nodes, new Set(isWhole ? chosen.filter(belongs) : chosen), random);
  const parts = kept.map((node) => {
    const kind = random.pick<ComponentKind | "script">(["vue", "svelte", "script", "script"]);
    const component = kind === "script" ? undefined : componentOf(node, { others: kept, index, kind });
    return component && compiles(scriptOf(replaced(kept, node, component.node))) ? { node, component } : { node };
  });
  const script = scriptOf(parts.map(({ node, component }) => component?.node ?? node));
  const files = new Map<string, string>();
  const inScript = parts.flatMap(({ node, component }) => (component ? component.stub : [node]));
  files.set("app.ts", scriptOf(inScript));
  parts.forEach(({ component }, at) => {
    if (component) files.set(`Part${String(at)}.${component.kind}`, component.text);
  });
  return { script, files, calls: callsIn(script), isWhole };
}

/** The calls of a script, with their arguments. */
function callsIn(script: string): WrittenCall[] {
  return [...script.matchAll(/\bsdk\.(\w+)\(\{\} as never, (.*)\);$/gm)].map(([, name = "", args = ""]) => ({
    name,
    args: runInThisContext(`(${args.replaceAll(" as never", "")})`) as unknown,
  }));
}

function replaced(nodes: readonly AppNode[], node: AppNode, by: AppNode): AppNode[] {
  return nodes.map((each) => (each === node ? by : each));
}

export function scriptOf(nodes: readonly AppNode[]): string {
  const lines = (node: AppNode): string[] =>
    isBlock(node) ? [node.text, ...node.inside.flatMap(lines), "}"] : [node.text];
  return `${nodes.flatMap(lines).join("\n")}\n`;
}

/** The chosen lines, the blocks around them, the declarations of their names, and a caller of each reader. */
function needed(nodes: readonly AppNode[], chosen: ReadonlySet<number>, random: Randomness): AppNode[] {
  const isKept = new Set<AppNode>();
  const names = new Map<string, { readonly node: AppNode; readonly around: readonly AppNode[] }>();
  const callers = new Map<string, { readonly node: AppNode; readonly around: readonly AppNode[] }[]>();
  const open: AppNode[] = [];
  const visit = (node: AppNode, around: readonly AppNode[]): void => {
    if (node.declares !== undefined && /\d$|^use/.test(node.declares)) names.set(node.declares, { node, around });
    for (const name of node.says)
      if (name.startsWith("use")) callers.set(name, [...(callers.get(name) ?? []), { node, around }]);
    // A line that is always kept is kept for the block around it, not the other way round.
    if (chosen.has(node.line) || (node.isAlways && around.length === 0)) open.push(...around, node);
    if (isBlock(node)) for (const each of node.inside) visit(each, [...around, node]);
  };
  for (const node of nodes) visit(node, []);
  for (let node = open.pop(); node; node = open.pop()) {
    if (isKept.has(node)) continue;
    isKept.add(node);
    const outside = (callers.get(node.declares ?? "") ?? []).filter(({ around }) => !around.includes(node));
    if (outside.length > 0 && !outside.some((caller) => isKept.has(caller.node))) {
      const caller = random.pick(outside);
      open.push(caller.node, ...caller.around);
    }
    if (isBlock(node)) open.push(...node.inside.filter(({ isAlways }) => isAlways));
    for (const name of node.says) {
      const found = names.get(name);
      if (found) open.push(found.node, ...found.around);
    }
  }
  const filtered = (node: AppNode): AppNode[] => {
    if (!isKept.has(node)) return [];
    return [isBlock(node) ? { ...node, inside: node.inside.flatMap(filtered) } : node];
  };
  return nodes.flatMap(filtered);
}
