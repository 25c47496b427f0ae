import type { Shape } from "../contract/model.js";
import type { RestSettings } from "../sdk/planRest.js";

/** What a language and the settings of an SDK make of a contract, as far as verdicts depend on it. */
export interface SdkFacts {
  /**
   * The type that a value without parts has in source, behind its names: two values with the same text compile alike.
   */
  readonly leafType: (shape: Shape) => string;
  /** What source calls a type, and a function or constant, of a name of the plan. */
  readonly typeName: (name: string) => string;
  readonly valueName: (name: string) => string;
  /** Whether a value becomes another one in the app than is on the wire, so that another spelling of it is not read. */
  readonly decodes: (shape: Shape) => boolean;
  /** Answers may hold choices that the contract does not list. */
  readonly openChoices: boolean;
  /** GraphQL answers may hold members of unions and interfaces that the schema does not have. */
  readonly openUnions: boolean;
  /** Answers are held against the contract before they are used. */
  readonly verifies: boolean;
  /** The app says itself where the server is. */
  readonly suppliesBaseUrl: boolean;
  /** What the SDK covers of a REST contract, and how. */
  readonly rest: RestSettings;
}
