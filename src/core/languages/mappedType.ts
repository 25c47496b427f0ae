import type { AnyShape } from "../contract/model.js";

/**
 * Returns the configured type of a GraphQL scalar.
 *
 * @param scalars the type of each mapped scalar
 * @param otherwise the type of a value without a mapped scalar
 */
export function mappedType({ scalar }: AnyShape, scalars: ReadonlyMap<string, string>, otherwise: string): string {
  return (scalar !== undefined && scalars.get(scalar)) || otherwise;
}
