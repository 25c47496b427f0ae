import type { GraphQLSchema } from "graphql";
import type { TakenArgument } from "../../core/call/readArguments.js";
import type { Contract, RestContract, RestOperation } from "../../core/contract/model.js";
import type { LoweredContract } from "../../core/sdk/lower/loweredSdk.js";
import type { ContractPlan, PlannedArgument } from "../../core/sdk/sdkPlan.js";
import type { ContractReading } from "../../core/contract/contractReading.js";

/** A call to try, with the smallest SDK for it. */
export interface FoundCall {
  readonly contract: string;
  /** The name of the smallest SDK. */
  readonly sdk: string;
  /** Its name in the SDK. */
  readonly name: string;
  /** "GET /berths", or "query Fleet". */
  readonly label: string;
  readonly connect: string;
  /** Whether it responds item by item. */
  readonly isStream: boolean;
  /** Whether it only reads. */
  readonly isSafe: boolean;
  /** The arguments, by their names in the SDK. */
  readonly taken: readonly TakenArgument[];
  readonly types: ContractPlan["types"];
  /** The names of the connection's credentials. */
  readonly credentials: readonly string[];
  /** The configured type of each mapped GraphQL scalar. */
  readonly scalars: ReadonlyMap<string, string>;
  /** The shared parameters that the connection supplies. */
  readonly standing: readonly TakenArgument[];
  /** The contract with this one call. */
  readonly lowered: LoweredContract;
  /** The files of the SDK by path. */
  readonly files: ReadonlyMap<string, string>;
  readonly source:
    | {
        readonly protocol: "rest";
        readonly contract: RestContract;
        readonly operation: RestOperation;
        /** The arguments, by their names in the SDK. */
        readonly arguments: ReadonlyMap<string, PlannedArgument>;
      }
    | { readonly protocol: "graphql"; readonly schema: GraphQLSchema; readonly text: string };
  /** The contract for the stand-in server. */
  readonly played: ContractReading & { readonly contract: Contract };
}
