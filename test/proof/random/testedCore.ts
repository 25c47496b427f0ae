import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { printTypescriptSdk } from "../../support/typescriptSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";

/** Makes an SDK of a contract. This is also the entry of the bundles with a planted bug. */
export const testedCore = {
  readContract,
  planRest,
  readGraphqlContract,
  readQueryDocuments,
  planGraphql,
  printTypescriptSdk,
} as const;

export type TestedCore = typeof testedCore;
