import { eachChild } from "../../../contract/childReferences.js";
import type { Reference, Shape, UnionShape } from "../../../contract/model.js";
import type { PlannedType } from "../../sdkPlan.js";
import { decodedLeaf, type DecodedLeaf, type DecodingSettings } from "./decodedLeaf.js";
import { tellApart, type MemberForm } from "./tellApart.js";

/** How a value is converted between JSON and the app. Parts that are not listed stay as they are. */
export type Conversion =
  | { readonly kind: "leaf"; readonly leaf: DecodedLeaf }
  /** The conversion of a planned type. */
  | { readonly kind: "type"; readonly id: string }
  | { readonly kind: "list"; readonly item: Conversion }
  | { readonly kind: "map"; readonly value: Conversion }
  | {
      readonly kind: "tuple";
      readonly items: readonly (Conversion | undefined)[];
      readonly rest?: Conversion;
    }
  | {
      readonly kind: "record";
      readonly fields: readonly { readonly name: string; readonly of: Conversion }[];
      /** The conversion of every undeclared key. */
      readonly rest?: Conversion;
      readonly declared: readonly string[];
    }
  | {
      readonly kind: "tagged";
      readonly field: string;
      readonly rows: readonly { readonly value: string; readonly of: Conversion }[];
    }
  /** The first form that matches. */
  | { readonly kind: "either"; readonly forms: readonly (MemberForm & { readonly of?: Conversion })[] };

/** Finds the conversions of a plan's types. */
export class Conversions {
  /** The keys of types that contain something to convert. */
  private readonly converted = new Set<string>();
  /** The keys of types with integers that need all their digits. */
  private readonly exact = new Set<string>();
  /** Whether the settings convert anything. */
  private readonly isAny: boolean;

  constructor(
    private readonly types: ReadonlyMap<string, PlannedType>,
    readonly settings: DecodingSettings,
  ) {
    const { dates, int64, ownFormats } = settings;
    this.isAny = dates === "decoded" || int64 !== "number" || ownFormats.size > 0;
    if (!this.isAny) return;
    const usedBy = new Map<string, string[]>();
    for (const { id, shape } of types.values()) {
      const open: Shape[] = [shape];
      for (let next = open.pop(); next; next = open.pop()) {
        const leaf = decodedLeaf(next, settings);
        if (leaf) this.converted.add(id);
        if (leaf?.kind === "integer") this.exact.add(id);
        if (next.kind === "named") usedBy.set(next.key, [...(usedBy.get(next.key) ?? []), id]);
        eachChild(next, (child) => open.push(child.shape));
      }
    }
    // A set that grows during the loop is read to its end.
    for (const set of [this.converted, this.exact])
      for (const id of set) for (const user of usedBy.get(id) ?? []) set.add(user);
  }

  /** Returns the planned types that are converted, each with its conversion. */
  ofTypes(): { readonly type: PlannedType; readonly of: Conversion }[] {
    return [...this.types.values()].flatMap((type) =>
      this.converted.has(type.id)
        ? [{ type, of: this.ofShape(type.shape) ?? { kind: "record", fields: [], declared: [] } }]
        : [],
    );
  }

  /** Returns the conversion of a use of a shape; undefined if nothing in it is converted. */
  of(reference: Reference): Conversion | undefined {
    return this.isAny ? this.ofShape(reference.shape) : undefined;
  }

  /** Returns whether a shape contains integers that need all their digits. */
  needsExact(reference: Reference): boolean {
    if (this.settings.int64 === "number") return false;
    const open: Shape[] = [reference.shape];
    for (let shape = open.pop(); shape; shape = open.pop()) {
      const isExact =
        shape.kind === "named" ? this.exact.has(shape.key) : decodedLeaf(shape, this.settings)?.kind === "integer";
      if (isExact) return true;
      eachChild(shape, (child) => open.push(child.shape));
    }
    return false;
  }

  private ofShape(shape: Shape): Conversion | undefined {
    const leaf = decodedLeaf(shape, this.settings);
    if (leaf) return { kind: "leaf", leaf };
    switch (shape.kind) {
      case "named":
        return this.converted.has(shape.key) ? { kind: "type", id: shape.key } : undefined;
      case "list": {
        const item = this.of(shape.item);
        return item && { kind: "list", item };
      }
      case "map": {
        const value = this.of(shape.value);
        return value && { kind: "map", value };
      }
      case "tuple": {
        const items = shape.items.map((item) => this.of(item));
        const rest = shape.rest && this.of(shape.rest);
        if (items.every((item) => item === undefined) && rest === undefined) return undefined;
        return { kind: "tuple", items, ...(rest ? { rest } : {}) };
      }
      case "record": {
        const fields = shape.fields.flatMap(({ name, type }) => {
          const of = this.of(type);
          return of === undefined ? [] : [{ name, of }];
        });
        const rest = shape.rest && this.of(shape.rest);
        if (fields.length === 0 && rest === undefined) return undefined;
        return { kind: "record", fields, ...(rest ? { rest } : {}), declared: shape.fields.map(({ name }) => name) };
      }
      case "union":
        return this.ofUnion(shape);
      default:
        return undefined;
    }
  }

  private ofUnion(union: UnionShape): Conversion | undefined {
    const members = union.members.map((member) => this.of(member));
    if (members.every((of) => of === undefined)) return undefined;
    const telling = tellApart(union, this.types, (member) => this.of(member) !== undefined);
    if (telling.by === "tag") {
      const rows = telling.rows.flatMap(({ value, at }) => {
        const of = members[at];
        return of ? [{ value, of }] : [];
      });
      return { kind: "tagged", field: telling.field, rows };
    }
    const forms = telling.forms.map((form) => {
      const of = form.values ? undefined : members[form.at];
      return of ? { ...form, of } : form;
    });
    return { kind: "either", forms };
  }
}
