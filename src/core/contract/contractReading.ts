import type { GraphQLSchema } from "graphql";
import type { Contract } from "./model.js";
import type { SourceText } from "../problem/place.js";
import type { Problem } from "../problem/problem.js";

export interface ContractReading {
  /** Absent when nothing is readable; then the problems say why. */
  readonly contract?: Contract;
  /** GraphQL only: what query documents are checked and typed against. */
  readonly schema?: GraphQLSchema;
  /** GraphQL only: the schema as texts in schema definition language, whatever it came as. */
  readonly texts?: readonly SourceText[];
  /** Texts that places refer to and that are no document of anybody's. */
  readonly derived?: readonly SourceText[];
  /** REST only: the parsed document; one made of all of them where there are several. */
  readonly raw?: unknown;
  /** REST only: documents that are referred to and were not given; a path of the project, or a URL. */
  readonly wanted?: readonly string[];
  readonly problems: readonly Problem[];
}
