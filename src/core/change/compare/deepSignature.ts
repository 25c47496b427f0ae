import type { Reference, Shape } from "../../contract/model.js";
import { referenceSignature } from "../../contract/sameShape.js";

/**
 * Returns the signature of a use of a shape. Names that an SDK made up are replaced by their definition, because they
 * depend on the place and not on the shape.
 *
 * @param isInline returns whether a key is such a name
 */
export function deepSignature(
  reference: Reference,
  types: ReadonlyMap<string, { readonly shape: Shape }>,
  isInline: (key: string) => boolean,
): string {
  return referenceSignature(opened(reference, types, isInline));
}

function opened(
  reference: Reference,
  types: ReadonlyMap<string, { readonly shape: Shape }>,
  isInline: (key: string) => boolean,
): Reference {
  const again = (inner: Reference): Reference => opened(inner, types, isInline);
  const { shape } = reference;
  switch (shape.kind) {
    case "named": {
      const type = isInline(shape.key) ? types.get(shape.key) : undefined;
      return type ? again({ ...reference, shape: type.shape }) : reference;
    }
    case "list":
      return { ...reference, shape: { ...shape, item: again(shape.item) } };
    case "map":
      return { ...reference, shape: { ...shape, value: again(shape.value) } };
    case "tuple":
      return {
        ...reference,
        shape: { ...shape, items: shape.items.map(again), ...(shape.rest ? { rest: again(shape.rest) } : {}) },
      };
    case "union":
      return { ...reference, shape: { ...shape, members: shape.members.map(again) } };
    case "record":
      return {
        ...reference,
        shape: {
          ...shape,
          fields: shape.fields.map((field) => ({ ...field, type: again(field.type) })),
          ...(shape.rest ? { rest: again(shape.rest) } : {}),
        },
      };
    default:
      return reference;
  }
}
