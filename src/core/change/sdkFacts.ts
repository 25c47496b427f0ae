import type { Shape } from "../contract/model.js";
import type { ContractNames } from "../sdk/contractNames.js";
import type { RestSettings } from "../sdk/planRest.js";
import type { ContractPlan } from "../sdk/sdkPlan.js";

/** The facts of a language and an SDK's settings on which verdicts depend. */
export interface SdkFacts {
  /**
   * Returns the type in source of a value without parts, with names replaced by definitions. Two values with the same
   * text compile alike.
   */
  readonly leafType: (shape: Shape) => string;
  /** Returns the source names of a planned type, and of a field of a record. */
  readonly typeName: (name: string) => string;
  readonly memberName: (field: string) => string;
  /** Returns the source names of all other parts of a plan. */
  readonly names: (plan: ContractPlan) => ContractNames;
  /** Whether two types with the same shape are different types. */
  readonly knowsTypesByName: boolean;
  /** Whether a place without a type in the contract accepts every value of source. */
  readonly unsaidTakesAll: boolean;
  /** Whether an enum is a string, a number or a boolean in source, without a type of its own. */
  readonly choicesArePlain: boolean;
  /** Returns whether a value is converted for the app, so that another spelling of it cannot be read. */
  readonly decodes: (shape: Shape) => boolean;
  /** Whether responses may contain enum values that the contract does not list. */
  readonly openChoices: boolean;
  /** Whether GraphQL responses may contain members of unions and interfaces that the schema does not have. */
  readonly openUnions: boolean;
  /**
   * Whether unions of REST have a member for values that the contract does not list, and no common fields in source.
   */
  readonly opensAllUnions: boolean;
  /** Whether responses are validated against the contract before they are used. */
  readonly verifies: boolean;
  /**
   * Whether each response is read as a whole: a call fails if a part of its response cannot be read, whichever part is
   * used.
   */
  readonly readsWhole: boolean;
  /** Whether the app supplies the address of the server itself. */
  readonly suppliesBaseUrl: boolean;
  /** Whether source does not compile that unwraps a value that is never null. */
  readonly refusesUnwrapping: boolean;
  /** Whether source can distinguish absent from null in a response. */
  readonly tellsAbsentFromNull: boolean;
  /** Whether the compiler requires every match to list all members of a union, also of an open one. */
  readonly matchesAllMembers: boolean;
  /** Whether arguments are passed by position, so that a new one may come before others. */
  readonly takesArgumentsByPlace: boolean;
  /** Whether source can destructure a record by the positions of its fields, which are sorted by name. */
  readonly takesRecordsApart: boolean;
  /** The settings for a REST contract's part of the SDK. */
  readonly rest: RestSettings;
}
