import type { GraphQLSchema } from "graphql";
import type { Contract } from "./model.js";
import type { SourceText } from "../problem/place.js";
import type { Problem } from "../problem/problem.js";

export interface ContractReading {
  /** Absent if nothing is readable. The problems then give the reason. */
  readonly contract?: Contract;
  /** GraphQL only: the schema for validating and typing query documents. */
  readonly schema?: GraphQLSchema;
  /** GraphQL only: the schema as texts in the schema definition language, whatever its source was. */
  readonly texts?: readonly SourceText[];
  /** Texts that places refer to and that are not documents of the user. */
  readonly derived?: readonly SourceText[];
  /** REST only: the parsed document, or one document that combines all of them. */
  readonly raw?: unknown;
  /** REST only: documents that are referred to but were not given, as a path of the project or a URL. */
  readonly wanted?: readonly string[];
  readonly problems: readonly Problem[];
}
