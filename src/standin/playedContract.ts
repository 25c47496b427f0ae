import type { Sample } from "../core/outline/outline.js";
import type { GraphQLSchema } from "graphql";
import type { Contract } from "../core/contract/model.js";

/** A contract to play, as it was read. */
export interface PlayedContract {
  readonly contract: Contract;
  readonly schema?: GraphQLSchema | undefined;
  /** REST: the parsed document. */
  readonly raw?: unknown;
  /** REST: code that performs each operation in the languages of the project's SDKs, by the operation's label. */
  readonly samples?: (() => Promise<ReadonlyMap<string, readonly Sample[]>>) | undefined;
  /** GraphQL: texts of the project's operations by the ids that its SDKs send. */
  readonly texts?: ReadonlyMap<string, string> | undefined;
  /** GraphQL: the formats that the project gives scalars, by their names. */
  readonly scalars?: ReadonlyMap<string, string> | undefined;
}
