import type { ChoiceShape, Field, Reference, Shape } from "../../contract/model.js";
import type { ShapeTable } from "../../contract/resolveShape.js";

/**
 * What a comparison of two shapes needs: the names on both sides, and what happens with names of the contract's own.
 */
export interface MeaningContext {
  readonly before: ShapeTable;
  readonly after: ShapeTable;
  readonly isOwnName: (key: string) => boolean;
  /** Called for every name of the contract's own inside, whatever its definition is on either side. */
  readonly named: (key: string) => void;
}

/**
 * Returns whether two uses of a shape are the same to all rules, apart from names of the contract's own. Most of a
 * large contract is unchanged, and this shows it without comparing part by part.
 */
export function sameMeaning(a: Reference, b: Reference, context: MeaningContext): boolean {
  return a.nullable === b.nullable && sameShape(a.shape, b.shape, context);
}

function sameShape(a: Shape, b: Shape, context: MeaningContext): boolean {
  if (a.kind !== b.kind) return false;
  switch (a.kind) {
    case "named":
      return sameNames(a.key, (b as typeof a).key, context);
    case "text":
    case "integer":
    case "number": {
      const other = b as typeof a;
      return a.format === other.format && sameData(a.constraints, other.constraints);
    }
    case "list": {
      const other = b as typeof a;
      return sameData(a.constraints, other.constraints) && sameMeaning(a.item, other.item, context);
    }
    case "map":
      return sameMeaning(a.value, (b as typeof a).value, context);
    case "record": {
      const other = b as typeof a;
      return (
        a.closed === other.closed &&
        a.oneOf === other.oneOf &&
        sameMaybe(a.rest, other.rest, context) &&
        a.fields.length === other.fields.length &&
        a.fields.every((field, at) => sameField(field, other.fields[at], context))
      );
    }
    case "tuple": {
      const other = b as typeof a;
      return (
        a.needed === other.needed && sameMaybe(a.rest, other.rest, context) && sameAll(a.items, other.items, context)
      );
    }
    case "union": {
      const other = b as typeof a;
      return sameData(a.tag, other.tag) && sameAll(a.members, other.members, context);
    }
    case "choice":
      return sameChoices(a, b as typeof a);
    case "boolean":
    case "bytes":
      return true;
    default:
      return sameData(a, b);
  }
}

/** Descriptions of an enum and its values do not count, because pins do not contain them. */
function sameChoices(a: ChoiceShape, b: ChoiceShape): boolean {
  return (
    a.isTag === b.isTag &&
    a.values.length === b.values.length &&
    a.values.every(({ value, deprecated }, at) => {
      const other = b.values[at];
      return value === other?.value && deprecated === other.deprecated;
    })
  );
}

function sameNames(a: string, b: string, context: MeaningContext): boolean {
  if (a !== b) return false;
  if (context.isOwnName(a)) {
    context.named(a);
    return true;
  }
  const left = context.before.get(a);
  const right = context.after.get(b);
  return left !== undefined && right !== undefined && sameShape(left.shape, right.shape, context);
}

function sameField(a: Field, b: Field | undefined, context: MeaningContext): boolean {
  return (
    a.name === b?.name &&
    a.required === b.required &&
    a.face === b.face &&
    a.deprecated === b.deprecated &&
    sameData(a.default, b.default) &&
    sameMeaning(a.type, b.type, context)
  );
}

function sameAll(a: readonly Reference[], b: readonly Reference[], context: MeaningContext): boolean {
  return (
    a.length === b.length &&
    a.every((each, at) => {
      const other = b[at];
      return other !== undefined && sameMeaning(each, other, context);
    })
  );
}

function sameMaybe(a: Reference | undefined, b: Reference | undefined, context: MeaningContext): boolean {
  return a === undefined || b === undefined ? a === b : sameMeaning(a, b, context);
}

function sameData(a: unknown, b: unknown): boolean {
  return a === b || (a !== undefined && b !== undefined && JSON.stringify(a) === JSON.stringify(b));
}
