import type { ASTNode, GraphQLError, Location, NameNode } from "graphql";
import type { Place } from "../problem/place.js";

/** The place of a syntax tree node: its name when it has one, because that is what a person looks for. */
export function placeOfNode(node: ASTNode): Place {
  const name = "name" in node ? (node.name as NameNode | undefined) : undefined;
  const named = name?.loc ?? node.loc;
  return placeOfLocation(named);
}

/** Only the first line's worth of a node is marked; a whole selection set under carets helps nobody. */
export function placeOfLocation(location: Location | undefined): Place {
  if (!location) return { document: "", offset: 0, length: 1 };
  return { document: location.source.name, offset: location.start, length: Math.max(1, location.end - location.start) };
}

/** The places a `graphql` error points at. */
export function placesOfError(error: GraphQLError): Place[] {
  if (error.nodes && error.nodes.length > 0) return error.nodes.map(placeOfNode);
  const { source, positions } = error;
  return source && positions ? positions.map((offset) => ({ document: source.name, offset, length: 1 })) : [];
}
