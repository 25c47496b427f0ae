import type { GraphQLSchema } from "graphql";
import type { TakenArgument } from "../../core/call/readArguments.js";
import type { Contract, RestContract, RestOperation } from "../../core/contract/model.js";
import type { LoweredContract } from "../../core/sdk/lower/loweredSdk.js";
import type { ContractPlan, PlannedArgument } from "../../core/sdk/sdkPlan.js";
import type { ContractReading } from "../../core/contract/contractReading.js";

/** A call that somebody wants to try, and the smallest SDK that has it. */
export interface FoundCall {
  readonly contract: string;
  /** The name of the smallest SDK. */
  readonly sdk: string;
  /** What the SDK calls it. */
  readonly name: string;
  /** "GET /berths", or "query Fleet". */
  readonly label: string;
  readonly connect: string;
  /** It answers item by item. */
  readonly isStream: boolean;
  /** It asks and changes nothing. */
  readonly isSafe: boolean;
  /** By the names that the SDK takes them by. */
  readonly taken: readonly TakenArgument[];
  readonly types: ContractPlan["types"];
  /** Names of the connection's credentials. */
  readonly credentials: readonly string[];
  /** What each GraphQL scalar is that the configuration maps. */
  readonly scalars: ReadonlyMap<string, string>;
  /** Parameters that the connection supplies. */
  readonly standing: readonly TakenArgument[];
  /** The contract with this one call. */
  readonly lowered: LoweredContract;
  /** Files of the SDK by path. */
  readonly files: ReadonlyMap<string, string>;
  readonly source:
    | {
        readonly protocol: "rest";
        readonly contract: RestContract;
        readonly operation: RestOperation;
        /** By the names that the SDK takes them by. */
        readonly arguments: ReadonlyMap<string, PlannedArgument>;
      }
    | { readonly protocol: "graphql"; readonly schema: GraphQLSchema; readonly text: string };
  /** What the stand-in plays it from. */
  readonly played: ContractReading & { readonly contract: Contract };
}
