import type { Contract } from "../../core/contract/model.js";
import type { QueryDocuments } from "../../core/graphql/documents/queryModel.js";
import { readQueryDocuments, type QueryReading } from "../../core/graphql/documents/readQueryDocuments.js";
import type { ContractReading } from "../../core/contract/contractReading.js";
import type { ScalarMeaning } from "../../core/sdk/graphqlTypes.js";
import { planGraphql } from "../../core/sdk/planGraphql.js";
import { planRest } from "../../core/sdk/planRest.js";
import type { ContractPlan } from "../../core/sdk/sdkPlan.js";
import type { SharedSettings } from "../../core/sdk/lower/sharedSettings.js";
import type { ContractConfiguration, SdkConfiguration } from "../configuration/configuration.js";
import type { ProjectTexts } from "./sdkInputs.js";

/** Reads the query documents of a contract, validated and typed; undefined for REST. */
export function readQueries(
  name: string,
  reading: ContractReading,
  { texts, pick: { fragments } }: { readonly texts: ProjectTexts; readonly pick: Pick<SharedSettings, "fragments"> },
): QueryReading | undefined {
  return reading.schema && readQueryDocuments(reading.schema, texts.queries(name).texts, { fragments });
}

/** The input of planning besides the contract. */
export type PlannedFor = Pick<SdkConfiguration, "language"> & {
  readonly settings: Pick<SharedSettings, "unions"> & { readonly formats?: object };
};

/** The SDK that a contract is planned for. */
export interface Planning {
  readonly configured: ContractConfiguration;
  readonly plannedFor: PlannedFor;
}

/** Plans a contract as the project configures it. */
export function planContract(
  contract: Contract,
  queries: QueryDocuments | undefined,
  {
    configured,
    plannedFor: {
      language,
      settings: { unions, formats = {} },
    },
  }: Planning,
): ContractPlan {
  if (contract.protocol === "rest") return planRest(contract, configured);
  const meanings = Object.entries(configured.scalars ?? {});
  const known = meanings.filter(([, meaning]) => meaning.format !== undefined || isSaid(meaning[language]));
  const own = Object.keys(formats).filter((format) => contract.types.get(format)?.role === "scalar");
  return planGraphql(contract, queries ?? { operations: [], fragments: [], uses: [] }, {
    scalars: new Map([
      ...own.map((format): [string, ScalarMeaning] => [format, { format }]),
      ...known.map(([name, { format }]): [string, ScalarMeaning] => [name, format === undefined ? {} : { format }]),
    ]),
    // This never depends on the files that are found: a pattern without a match must not change everything.
    types: configured.types ?? (configured.queries ? "used" : "all"),
    unions,
  });
}

/** Returns the types of the GraphQL scalars in a contract's configuration, for one language. */
export function mappedScalars(configured: ContractConfiguration | undefined, language: string): Map<string, string> {
  return new Map(
    Object.entries(configured?.scalars ?? {}).flatMap(([scalar, meaning]): [string, string][] => {
      const type = meaning[language];
      return isSaid(type) ? [[scalar, type]] : [];
    }),
  );
}

/** Returns the formats of the GraphQL scalars in a contract's configuration. */
export function scalarFormats(configured: ContractConfiguration | undefined): Map<string, string> {
  return new Map(
    Object.entries(configured?.scalars ?? {}).flatMap(([scalar, { format }]): [string, string][] =>
      format === undefined ? [] : [[scalar, format]],
    ),
  );
}

function isSaid(type: string | undefined): type is string {
  return type !== undefined && type !== "unknown";
}
