import type { ChoiceValue, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import type { PlannedType } from "../../sdkPlan.js";
import type { SharedSettings } from "../sharedSettings.js";

/** The check of a response before it is used. */
export type Check =
  | { readonly kind: "text" | "integer" | "number" | "boolean" | "anything" | "nothing" }
  | { readonly kind: "oneOf"; readonly values: readonly ChoiceValue[] }
  /** The check of a planned type. */
  | { readonly kind: "type"; readonly id: string }
  | { readonly kind: "list"; readonly item: Check }
  | { readonly kind: "map"; readonly value: Check }
  | { readonly kind: "tuple"; readonly items: readonly Check[]; readonly needed: number; readonly rest?: Check }
  | {
      readonly kind: "record";
      readonly required: readonly FieldCheck[];
      readonly optional: readonly FieldCheck[];
      /** The check of undeclared keys; absent if they may have any value. */
      readonly rest?: Check;
    }
  | {
      readonly kind: "tagged";
      readonly field: string;
      readonly rows: readonly { readonly value: string; readonly of: Check }[];
    }
  | { readonly kind: "either"; readonly checks: readonly Check[] }
  | { readonly kind: "orNull"; readonly of: Check };

export interface FieldCheck {
  readonly name: string;
  readonly of: Check;
}

/** Finds the checks of a plan's types. */
export class Checks {
  constructor(
    private readonly types: ReadonlyMap<string, PlannedType>,
    private readonly settings: Pick<SharedSettings, "choices">,
  ) {}

  /** Returns every planned type in responses, with its check. */
  ofTypes(): { readonly type: PlannedType; readonly of: Check }[] {
    return [...this.types.values()]
      .filter(({ face }) => face !== "request")
      .map((type) => ({ type, of: this.ofShape(type.shape) }));
  }

  /** Returns the check of a use of a shape. */
  of(reference: Reference): Check {
    const of = this.ofShape(reference.shape);
    return reference.nullable && of.kind !== "anything" ? { kind: "orNull", of } : of;
  }

  private ofShape(shape: Shape): Check {
    switch (shape.kind) {
      case "text":
      case "bytes":
        return { kind: "text" };
      case "integer":
      case "number":
      case "boolean":
        return { kind: shape.kind };
      case "any":
        return { kind: "anything" };
      case "literal":
        return { kind: "oneOf", values: [shape.value] };
      case "choice": {
        const values = shape.values.map(({ value }) => value);
        return this.settings.choices === "open" ? anyOfKinds(values) : { kind: "oneOf", values };
      }
      case "named": {
        const type = this.types.get(shape.key);
        return !type || type.face === "request" ? { kind: "anything" } : { kind: "type", id: shape.key };
      }
      case "list":
        return { kind: "list", item: this.of(shape.item) };
      case "map":
        return { kind: "map", value: this.of(shape.value) };
      case "tuple":
        return {
          kind: "tuple",
          items: shape.items.map((item) => this.of(item)),
          needed: shape.needed ?? shape.items.length,
          ...(shape.rest ? { rest: this.of(shape.rest) } : {}),
        };
      case "record": {
        const fields = (required: boolean): FieldCheck[] =>
          shape.fields
            .filter((field) => field.required === required)
            .map(({ name, type }) => ({ name, of: this.of(type) }));
        const rest: Check | undefined = shape.closed ? { kind: "nothing" } : shape.rest && this.of(shape.rest);
        return { kind: "record", required: fields(true), optional: fields(false), ...(rest ? { rest } : {}) };
      }
      case "union":
        return this.ofUnion(shape);
    }
  }

  private ofUnion({ tag, members }: UnionShape): Check {
    if (members.length === 0) return { kind: "nothing" };
    const checks = members.map(({ shape }) => this.ofShape(shape));
    const isTagged = members.every(({ shape }) => resolveShape(shape, this.types).kind === "record");
    const of: Check =
      tag && isTagged
        ? {
            kind: "tagged",
            field: tag.field,
            rows: checks.flatMap((check, at) => (tag.values[at] ?? []).map((value) => ({ value, of: check }))),
          }
        : { kind: "either", checks };
    return members.some(({ nullable }) => nullable) ? { kind: "orNull", of } : of;
  }
}

/** Any value of the listed types. */
function anyOfKinds(values: readonly ChoiceValue[]): Check {
  const kinds = [...new Set(values.map((value) => typeof value))].map((kind): Check => ({
    kind: kind === "string" ? "text" : kind === "number" ? "number" : "boolean",
  }));
  const [only] = kinds;
  return only && kinds.length === 1 ? only : { kind: "either", checks: kinds };
}
