import type { Shape } from "../contract/model.js";
import type { ContractNames } from "../sdk/contractNames.js";
import type { RestSettings } from "../sdk/planRest.js";
import type { ContractPlan } from "../sdk/sdkPlan.js";

/** What a language and the settings of an SDK make of a contract, as far as verdicts depend on it. */
export interface SdkFacts {
  /**
   * The type that a value without parts has in source, behind its names: two values with the same text compile alike.
   */
  readonly leafType: (shape: Shape) => string;
  /** What source calls a type of the plan, and a field of a record. */
  readonly typeName: (name: string) => string;
  readonly memberName: (field: string) => string;
  /** What source calls everything else that a plan holds. */
  readonly names: (plan: ContractPlan) => ContractNames;
  /** Two types of the same shape are different ones. */
  readonly knowsTypesByName: boolean;
  /** A place of which the contract says nothing takes every value that source has. */
  readonly unsaidTakesAll: boolean;
  /** A choice is a text, a number or a boolean to source, and no type of its own. */
  readonly choicesArePlain: boolean;
  /** Whether a value becomes another one in the app than is on the wire, so that another spelling of it is not read. */
  readonly decodes: (shape: Shape) => boolean;
  /** Answers may hold choices that the contract does not list. */
  readonly openChoices: boolean;
  /** GraphQL answers may hold members of unions and interfaces that the schema does not have. */
  readonly openUnions: boolean;
  /** Unions of REST carry a member that the contract does not list too, and have no fields in common in source. */
  readonly opensAllUnions: boolean;
  /** Answers are held against the contract before they are used. */
  readonly verifies: boolean;
  /** Each answer is read as a whole: a call fails when a part of its answer cannot be read, whatever is used of it. */
  readonly readsWhole: boolean;
  /** The app says itself where the server is. */
  readonly suppliesBaseUrl: boolean;
  /** Source that takes null away from a value that is never null does not compile. */
  readonly refusesUnwrapping: boolean;
  /** Source can tell in an answer whether a value is absent or null; else both are the same to it. */
  readonly tellsAbsentFromNull: boolean;
  /** The compiler wants every match to name all members of a union, open ones included. */
  readonly matchesAllMembers: boolean;
  /** Arguments are given by their place, so that a new one may come before others. */
  readonly takesArgumentsByPlace: boolean;
  /** Source can take a record apart by the places of its fields, which stand in the order of their names. */
  readonly takesRecordsApart: boolean;
  /** What the SDK covers of a REST contract, and how. */
  readonly rest: RestSettings;
}
