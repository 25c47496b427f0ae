import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/documents/readQueryDocuments.js";
import { printTypescriptSdk } from "../../support/typescriptSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";

/** What makes an SDK of a contract; also the entry of the bundles that have a bug planted in them. */
export const testedCore = {
  readContract,
  planRest,
  readGraphqlContract,
  readQueryDocuments,
  planGraphql,
  printTypescriptSdk,
} as const;

export type TestedCore = typeof testedCore;
