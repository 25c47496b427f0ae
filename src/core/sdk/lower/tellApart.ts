import type { Reference, Shape, UnionShape } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedType } from "../sdkPlan.js";

/** How a value of a union is recognised as one of its members. */
export type TellingApart =
  /** By the value of a field; each member with the values that say it. */
  | { readonly by: "tag"; readonly field: string; readonly rows: readonly TagRow[] }
  /** By its form: the first one that fits, in this order. */
  | { readonly by: "form"; readonly forms: readonly MemberForm[] };

export interface TagRow {
  readonly value: string;
  /** The member's place in the union. */
  readonly at: number;
}

/** A form of value that a member of a union can have. */
export interface MemberForm {
  readonly at: number;
  readonly kind: "text" | "number" | "list" | "record";
  /** Records: the fields that have to be there. */
  readonly needs: readonly string[];
  /** The only values it can have. */
  readonly values?: readonly (string | number | boolean)[];
}

type Types = ReadonlyMap<string, PlannedType>;

/**
 * Says how the members of a union are told apart. Without a tag, what says most about itself is asked first.
 *
 * @param isDecoded whether a member becomes something else in the app; of plain values, one that does not is asked first,
 * because any value fits it
 */
export function tellApart(
  union: UnionShape,
  types: Types,
  isDecoded: (member: Reference) => boolean = () => false,
): TellingApart {
  const { tag, members } = union;
  if (tag && members.every((member) => resolveShape(member.shape, types).kind === "record"))
    return {
      by: "tag",
      field: tag.field,
      rows: members.flatMap((_, at) => (tag.values[at] ?? []).map((value) => ({ value, at }))),
    };
  const found = members.flatMap((member, at) => {
    const decoded = isDecoded(member);
    return formsOf(member.shape, at, decoded, types).map((form) => ({
      form,
      // Values that are listed count more than a form, and a form more than the fields that it needs.
      rank: (form.values ? -1000 : decoded ? 0 : -500) - form.needs.length,
    }));
  });
  return { by: "form", forms: found.sort((a, b) => a.rank - b.rank).map(({ form }) => form) };
}

function formsOf(shape: Shape, at: number, isDecoded: boolean, types: Types): MemberForm[] {
  const inner = resolveShape(shape, types);
  switch (inner.kind) {
    case "text":
      return [{ at, kind: "text", needs: [] }];
    case "integer":
    case "number":
      return [{ at, kind: "number", needs: [] }];
    case "literal":
      return [{ at, kind: typeof inner.value === "string" ? "text" : "number", needs: [], values: [inner.value] }];
    case "choice":
      return [{ at, kind: "text", needs: [], values: inner.values.map(({ value }) => value) }];
    case "list":
    case "tuple":
      return [{ at, kind: "list", needs: [] }];
    case "record":
      return [{ at, kind: "record", needs: inner.fields.filter(({ required }) => required).map(({ name }) => name) }];
    case "map":
      return [{ at, kind: "record", needs: [] }];
    case "union":
      // What is the same in the app and on the wire need not be recognised.
      return isDecoded ? (["record", "text", "number", "list"] as const).map((kind) => ({ at, kind, needs: [] })) : [];
    default:
      return [];
  }
}
