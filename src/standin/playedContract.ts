import type { Sample } from "../core/outline/outline.js";
import type { GraphQLSchema } from "graphql";
import type { Contract } from "../core/contract/model.js";

/** A contract for the stand-in server, as it was read. */
export interface PlayedContract {
  readonly contract: Contract;
  readonly schema?: GraphQLSchema | undefined;
  /** REST: the parsed document. */
  readonly raw?: unknown;
  /** REST: code that makes each call in the languages of the project's SDKs, by the operation's label. */
  readonly samples?: (() => Promise<ReadonlyMap<string, readonly Sample[]>>) | undefined;
  /** GraphQL: the texts of the project's operations by the ids that its SDKs send. */
  readonly texts?: ReadonlyMap<string, string> | undefined;
  /** GraphQL: the project's formats of scalars, by name. */
  readonly scalars?: ReadonlyMap<string, string> | undefined;
}
