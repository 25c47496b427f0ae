import type { ASTNode, GraphQLError, Location, NameNode } from "graphql";
import type { Place } from "../problem/place.js";

/** Returns the place of a syntax tree node: its name if it has one, because people look for that. */
export function placeOfNode(node: ASTNode): Place {
  const name = "name" in node ? (node.name as NameNode | undefined) : undefined;
  const named = name?.loc ?? node.loc;
  return placeOfLocation(named);
}

/**
 * Returns the place of a location. At most one line of a node is marked, because carets below a whole selection set
 * help nobody.
 */
export function placeOfLocation(location: Location | undefined): Place {
  if (!location) return { document: "", offset: 0, length: 1 };
  return { document: location.source.name, offset: location.start, length: Math.max(1, location.end - location.start) };
}

/** Returns the places of a `graphql` error. */
export function placesOfError(error: GraphQLError): Place[] {
  if (error.nodes && error.nodes.length > 0) return error.nodes.map(placeOfNode);
  const { source, positions } = error;
  return source && positions ? positions.map((offset) => ({ document: source.name, offset, length: 1 })) : [];
}
