import { fileBase } from "../../text/fileBase.js";
import { groupedBy } from "../../text/groupedBy.js";
import { sortedBy } from "../../text/sortedBy.js";
import { mark } from "../nameScope.js";
import type { GraphqlCall, GraphqlPlan, RestCall, RestPlan } from "../sdkPlan.js";

/** The calls that share a file, by their groups in the contract. */
export interface CallFile<Call> {
  /** The file's name without extension. */
  readonly file: string;
  readonly calls: readonly Call[];
  readonly groups: ReadonlyMap<string, readonly Call[]>;
}

/** Returns the file name of a group of calls, without extension. */
export function groupFile(group: string): string {
  return fileBase(group, mark) || "calls";
}

/** Returns the calls of a REST contract by file, sorted by file. */
export function restCallFiles<Call extends { readonly call: RestCall }>(calls: readonly Call[]): CallFile<Call>[] {
  const groups = groupedBy(calls, ({ call }) => call.group);
  const fileOf = new Map([...groups.keys()].map((group) => [group, groupFile(group)]));
  // Groups whose names differ only in spelling share a file, in which calls keep their order.
  const files = groupedBy(calls, ({ call }) => fileOf.get(call.group) ?? "");
  return sortedBy(files, ([file]) => file).map(([file, own]) => ({
    file,
    calls: own,
    groups: new Map([...groups].filter(([group]) => fileOf.get(group) === file)),
  }));
}

/** Returns the parent groups of a group by its tags, outermost first. A circle of parents ends where it closes. */
export function groupsAbove(group: string, tags: RestPlan["tags"]): string[] {
  const found: string[] = [];
  for (let parent = tags.get(group)?.parent; parent !== undefined; parent = tags.get(parent)?.parent) {
    if (parent === group || found.includes(parent)) break;
    found.unshift(parent);
  }
  return found;
}

/** Returns the file of each GraphQL call, without extension: one for each call. */
export function graphqlCallFiles(plan: GraphqlPlan): Map<GraphqlCall, string> {
  const taken = new Set<string>();
  return new Map(
    plan.calls.map((call) => {
      const base = fileBase(call.name, mark) || "call";
      let file = base;
      for (let number = 2; taken.has(file); number++) file = `${base}-${String(number)}`;
      taken.add(file);
      return [call, file];
    }),
  );
}

/** Returns the call of each inline type, by type id. Named types of the schema and types of fragments are shared. */
export function ownedTypes(plan: GraphqlPlan): Map<string, GraphqlCall> {
  const owners = new Map<string, GraphqlCall>();
  const claim = (id: string, owner: GraphqlCall): void => {
    const type = plan.types.get(id);
    if (!type || owners.has(id) || !id.startsWith("inline ")) return;
    owners.set(id, owner);
    const open = [type.shape];
    for (let shape = open.pop(); shape; shape = open.pop()) {
      if (shape.kind === "named") claim(shape.key, owner);
      else if (shape.kind === "record") open.push(...shape.fields.map((field) => field.type.shape));
      else if (shape.kind === "list") open.push(shape.item.shape);
      else if (shape.kind === "union") open.push(...shape.members.map((member) => member.shape));
    }
  };
  for (const call of plan.calls)
    for (const { shape } of [call.answer, ...(call.whole ? [call.whole] : [])])
      if (shape.kind === "named") claim(shape.key, call);
  return owners;
}
