import type { Field, RecordShape, Reference, Shape } from "../../contract/model.js";
import { reachedTypes } from "../../contract/reachedTypes.js";
import { resolveShape } from "../../contract/resolveShape.js";
import { referenceSignature } from "../../contract/sameShape.js";
import type { ContractPlan, PlannedType } from "../sdkPlan.js";

/** The types of fragments, and the other types whose values also have them. */
export interface FragmentTypes {
  /** The ids of the types of fragments, and of the records and unions inside them. */
  readonly ids: ReadonlySet<string>;
  /** For the id of a record or union, the ids of the types inside fragments that each of its values also has. */
  readonly of: ReadonlyMap<string, ReadonlySet<string>>;
}

/** A type, and another one that all its values also have. */
type Link = readonly [id: string, of: string];

/**
 * Returns the types of responses and fragments that are also types of the fragments they spread, with the types inside
 * them. A record has the type of a fragment only if the fragment is always spread, so that no field can be missing.
 */
export function fragmentTypes(plan: ContractPlan): FragmentTypes {
  if (plan.protocol !== "graphql") return { ids: new Set(), of: new Map() };
  const { types } = plan;
  const ids = new Set(
    [
      ...reachedTypes(
        plan.fragments.map(({ reference }) => reference.shape),
        (id) => types.get(id)?.shape,
      ),
    ].filter((id) => isComposite(types.get(id)?.shape)),
  );
  const roots = new Map(plan.fragments.map(({ fragment, reference }) => [fragment, keyOf(reference)]));
  const links = new Links(types, ids);
  const found = new Map<string, Set<string>>();
  for (const { id, shape } of types.values())
    for (const fragment of spreadsOf(shape, types)) {
      const root = roots.get(fragment);
      const implied = root === undefined ? undefined : links.between(id, root);
      for (const [from, to] of implied ?? []) found.set(from, (found.get(from) ?? new Set<string>()).add(to));
    }
  return { ids, of: withoutImplied(found) };
}

function isComposite(shape: Shape | undefined): boolean {
  return shape?.kind === "record" || shape?.kind === "union";
}

function keyOf({ shape }: Reference): string | undefined {
  return shape.kind === "named" ? shape.key : undefined;
}

/** The fragments that every value of a type spreads. */
function spreadsOf(shape: Shape, types: ReadonlyMap<string, PlannedType>): readonly string[] {
  if (shape.kind === "record") return shape.spreads ?? [];
  if (shape.kind !== "union") return [];
  const [first = [], ...others] = shape.members.map((member) => {
    const inner = types.get(keyOf(member) ?? "")?.shape;
    return inner ? spreadsOf(inner, types) : [];
  });
  return first.filter((fragment) => others.every((each) => each.includes(fragment)));
}

class Links {
  constructor(
    private readonly types: ReadonlyMap<string, PlannedType>,
    private readonly ids: ReadonlySet<string>,
  ) {}

  /** Returns the links that follow from one type being another, with those inside it; undefined if it is not. */
  between(id: string, of: string): Link[] | undefined {
    const from = this.types.get(id)?.shape;
    const to = this.types.get(of)?.shape;
    if (id === of || !from || !to) return undefined;
    if (from.kind === "union")
      return together(
        [[id, of]],
        from.members.map((member) => this.ofMember(member, of)),
      );
    if (from.kind !== "record") return undefined;
    if (to.kind === "record") return this.ofRecords([id, of], from, to);
    const member = to.kind === "union" ? memberFor(from, to.members, to.tag?.values) : undefined;
    return member === undefined ? undefined : this.between(id, member);
  }

  private ofMember(member: Reference, of: string): Link[] | undefined {
    const key = keyOf(member);
    return key === undefined ? undefined : this.between(key, of);
  }

  private ofRecords(link: Link, from: RecordShape, to: RecordShape): Link[] | undefined {
    const fields = new Map(from.fields.map((field) => [field.name, field]));
    const below = to.fields.map((field) => {
      const own = fields.get(field.name);
      if (!own) return isTag(field) ? [] : undefined;
      if (isThere(field) ? !isThere(own) : field.required && !own.required && this.isAny(own)) return undefined;
      return this.ofReferences(own.type, field.type);
    });
    return together([link], below);
  }

  /** Whether null is one of the values of a field, so that it does not mean an absent field. */
  private isAny({ type }: Field): boolean {
    return resolveShape(type.shape, this.types).kind === "any";
  }

  private ofReferences(from: Reference, to: Reference): Link[] | undefined {
    if (from.shape.kind === "list" && to.shape.kind === "list") {
      if (from.shape.item.nullable && !to.shape.item.nullable) return undefined;
      return this.ofReferences(from.shape.item, to.shape.item);
    }
    const key = keyOf(to);
    if (key !== undefined && this.ids.has(key)) return this.ofMember(from, key);
    const isSame =
      referenceSignature({ ...from, nullable: false }) === referenceSignature({ ...to, nullable: false }) ||
      (isText(from.shape) && isText(to.shape));
    return isSame ? [] : undefined;
  }
}

/** The name of a type, one or any. */
function isText(shape: Shape): boolean {
  return shape.kind === "text" || (shape.kind === "literal" && typeof shape.value === "string");
}

function isThere({ required, type }: Field): boolean {
  return required && !type.nullable;
}

/** The field that identifies union members, which a record of a single type does not need. */
function isTag({ name }: Field): boolean {
  return name === "__typename";
}

/**
 * Returns the id of the union member that values of a record have. The last member stands for types that are not known
 * yet.
 *
 * @param members the members of the union
 * @param values the tag values of each member
 */
export function memberFor(
  { objects }: RecordShape,
  members: readonly Reference[],
  values: readonly (readonly string[])[] = [],
): string | undefined {
  if (objects === undefined) return undefined;
  const at = values.findIndex((each) =>
    objects.length === 0 ? each.length === 0 : objects.every((name) => each.includes(name)),
  );
  const member = members[at];
  return member && keyOf(member);
}

function together(links: Link[], parts: readonly (Link[] | undefined)[]): Link[] | undefined {
  const all = [...links];
  for (const part of parts) {
    if (!part) return undefined;
    all.push(...part);
  }
  return all;
}

/** Removes links that follow from others. */
function withoutImplied(of: ReadonlyMap<string, ReadonlySet<string>>): Map<string, ReadonlySet<string>> {
  const above = (id: string): Set<string> => {
    const all = new Set<string>();
    // A set that grows during the loop is read to its end.
    for (const each of of.get(id) ?? []) all.add(each);
    for (const each of all) for (const more of of.get(each) ?? []) all.add(more);
    return all;
  };
  return new Map(
    [...of].map(([id, direct]) => {
      const implied = new Set([...direct].flatMap((each) => [...above(each)]));
      return [id, new Set([...direct].filter((each) => !implied.has(each)))];
    }),
  );
}
