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
 * A plan with everything decided that is meaning: how requests are written, answers read, values converted and checked.
 * What is left to a language is how to spell it.
 */
export interface LoweredSdk {
  readonly name: string;
  readonly contracts: readonly LoweredContract[];
  readonly settings: SharedSettings;
}

export type LoweredContract = LoweredRest | LoweredGraphql;

interface LoweredBase {
  readonly types: ReadonlyMap<string, PlannedType>;
  /** Types that are something else in the app than on the wire. */
  readonly conversions: readonly { readonly type: PlannedType; readonly of: Conversion }[];
  /** What answers are held against; empty unless they are verified. */
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
  /** By name. */
  readonly calls: readonly LoweredCall[];
  readonly files: readonly CallFile<LoweredCall>[];
}

/** One REST call with all that is decided about it. */
export interface LoweredCall {
  readonly call: RestCall;
  /** What failures and fakes know it by: "berths.listBerths". */
  readonly label: string;
  readonly request: RequestPlan;
  /** How answers are read when nothing special is asked for; never empty. */
  readonly answers: readonly StatusReading[];
  /** How they are read by the media type that is asked for, the usual one first; empty when there is no choice. */
  readonly answersByType: readonly { readonly mediaType: string; readonly answers: readonly StatusReading[] }[];
  readonly failures: readonly StatusReading[];
  readonly headers: readonly HeaderReading[];
  readonly pages?: PageReading;
  /** It answers item by item. */
  readonly isStream: boolean;
  /** What a fake of it answers with. */
  readonly fake: FakeAnswer;
}

/** How a fake connection answers a call. */
export interface FakeAnswer {
  readonly status: number;
  readonly reading: StatusReading;
  readonly mediaType?: string;
}

export interface LoweredGraphql extends LoweredBase {
  readonly protocol: "graphql";
  readonly plan: GraphqlPlan;
  readonly calls: readonly LoweredGraphqlCall[];
  /** Types of fragments by the fragment's name; empty unless fragments are sealed. */
  readonly sealed: ReadonlyMap<string, Reference>;
}

/** One GraphQL call with all that is decided about it. */
export interface LoweredGraphqlCall {
  readonly call: GraphqlCall;
  /** What failures and fakes know it by: "passages.arrivalsToday". */
  readonly label: string;
  /** The name of its file, without an ending. */
  readonly file: string;
  /** Types that belong to this call alone. */
  readonly types: readonly PlannedType[];
  /** How the data of an answer is converted, what its fragments seal included. */
  readonly answer: GraphqlConversion;
  readonly variables: GraphqlConversion;
  /** Its variables can hold files. */
  readonly hasFiles: boolean;
  /** It answers again and again. */
  readonly isStream: boolean;
}

export interface GraphqlConversion {
  readonly conversion?: Conversion;
  /** Integers keep all their digits. */
  readonly isExact: boolean;
}
