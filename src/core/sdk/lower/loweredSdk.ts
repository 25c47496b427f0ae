import type { Reference } from "../../contract/model.js";
import type { GraphqlCall, GraphqlPlan, PlannedType, RestCall, RestPlan } from "../sdkPlan.js";
import type { CallFile } from "./callFiles.js";
import type { Check } from "./values/check.js";
import type { ConnectionPlan } from "./connectionPlan.js";
import type { Conversion } from "./values/conversion.js";
import type { Feature } from "./features.js";
import type { HeaderReading } from "./headerReading.js";
import type { PageReading } from "./pageReading.js";
import type { StatusReading } from "./reading.js";
import type { RequestPlan } from "./request.js";
import type { SampleBuilder } from "./values/sampleBuilders.js";
import type { SharedSettings } from "./sharedSettings.js";

/**
 * A plan in which all meaning is decided: how requests are written, responses read, values converted and checked. A
 * language only spells it.
 */
export interface LoweredSdk {
  readonly name: string;
  readonly contracts: readonly LoweredContract[];
  readonly settings: SharedSettings;
}

export type LoweredContract = LoweredRest | LoweredGraphql;

interface LoweredBase {
  readonly types: ReadonlyMap<string, PlannedType>;
  /** Types that differ between JSON and the app. */
  readonly conversions: readonly { readonly type: PlannedType; readonly of: Conversion }[];
  /** The checks of responses; empty unless responses are verified. */
  readonly checks: readonly { readonly type: PlannedType; readonly of: Check }[];
  /** Samples for tests; empty unless there is a module for tests. */
  readonly builders: readonly SampleBuilder[];
  readonly features: ReadonlySet<Feature>;
  readonly settings: SharedSettings;
}

export interface LoweredRest extends LoweredBase {
  readonly protocol: "rest";
  readonly plan: RestPlan;
  readonly connection: ConnectionPlan;
  /** Sorted by name. */
  readonly calls: readonly LoweredCall[];
  readonly files: readonly CallFile<LoweredCall>[];
}

/** One REST call with all decisions about it. */
export interface LoweredCall {
  readonly call: RestCall;
  /** Its name in failures and fakes: "berths.listBerths". */
  readonly label: string;
  readonly request: RequestPlan;
  /** How responses are read by default; never empty. */
  readonly answers: readonly StatusReading[];
  /** How responses are read by the requested media type, the default one first; empty if there is no choice. */
  readonly answersByType: readonly { readonly mediaType: string; readonly answers: readonly StatusReading[] }[];
  readonly failures: readonly StatusReading[];
  readonly headers: readonly HeaderReading[];
  readonly pages?: PageReading;
  /** Whether it responds item by item. */
  readonly isStream: boolean;
  /** How a fake of it responds. */
  readonly fake: FakeAnswer;
}

/** How a fake connection responds to a call. */
export interface FakeAnswer {
  readonly status: number;
  readonly reading: StatusReading;
  readonly mediaType?: string;
}

export interface LoweredGraphql extends LoweredBase {
  readonly protocol: "graphql";
  readonly plan: GraphqlPlan;
  readonly calls: readonly LoweredGraphqlCall[];
  /** The types of fragments by name; empty unless fragments are sealed. */
  readonly sealed: ReadonlyMap<string, Reference>;
}

/** One GraphQL call with all decisions about it. */
export interface LoweredGraphqlCall {
  readonly call: GraphqlCall;
  /** Its name in failures and fakes: "passages.arrivalsToday". */
  readonly label: string;
  /** The name of its file, without extension. */
  readonly file: string;
  /** The types that belong to this call alone. */
  readonly types: readonly PlannedType[];
  /** How the data of a response is converted, with the fields of sealed fragments. */
  readonly answer: GraphqlConversion;
  readonly variables: GraphqlConversion;
  /** Whether its variables can contain files. */
  readonly hasFiles: boolean;
  /** Whether it responds repeatedly. */
  readonly isStream: boolean;
}

export interface GraphqlConversion {
  readonly conversion?: Conversion;
  /** Whether integers keep all their digits. */
  readonly isExact: boolean;
}
