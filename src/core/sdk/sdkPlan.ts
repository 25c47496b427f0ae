import type { NameClash } from "./nameScope.js";
import type {
  AuthScheme,
  Content,
  Field,
  Parameter,
  Reference,
  RequestBody,
  RestOperation,
  SentRequest,
  Server,
  Shape,
  Tag,
} from "../contract/model.js";
import type { QueryOperation } from "../graphql/documents/queryModel.js";

/**
 * The content of an SDK, before any language spells it: names in JSON, roles, shapes, and one stable name for every
 * record, union and enum. Shapes of a plan refer only to planned types, by id.
 */
export interface SdkPlan {
  readonly name: string;
  readonly contracts: readonly ContractPlan[];
}

export type ContractPlan = RestPlan | GraphqlPlan;

interface ContractPlanBase {
  /** The contract's name in the configuration. */
  readonly name: string;
  readonly title: string;
  readonly version: string;
  readonly description?: string;
  readonly types: ReadonlyMap<string, PlannedType>;
  /** The number of places without a type in the contract. */
  readonly untyped: number;
  /** Names that differ from the contract's, because others have the same one. */
  readonly clashes: readonly NameClash[];
}

export interface RestPlan extends ContractPlanBase {
  readonly protocol: "rest";
  readonly servers: readonly Server[];
  readonly authSchemes: ReadonlyMap<string, AuthScheme>;
  readonly standing: readonly StandingParameter[];
  readonly calls: readonly RestCall[];
  /** Requests that the server sends on its own: webhooks, then callbacks. */
  readonly sent: readonly PlannedSent[];
  readonly tags: ReadonlyMap<string, Tag>;
}

/** A request from the API's server to the app's own server, as types. */
export interface PlannedSent {
  /** In PascalCase, unique in its contract. */
  readonly name: string;
  readonly replyName: string;
  readonly request: SentRequest;
  /** The operation of a callback; undefined for webhooks. */
  readonly of?: RestOperation;
  readonly query: readonly Field[];
  readonly headers: readonly Field[];
  readonly body?: Reference;
  /** The response that the server expects. */
  readonly reply?: Reference;
}

export interface GraphqlPlan extends ContractPlanBase {
  readonly protocol: "graphql";
  readonly calls: readonly GraphqlCall[];
  readonly fragments: readonly PlannedFragment[];
}

/** The direction for which a type is printed; "both" if the directions do not differ. */
export type Face = "answer" | "request" | "both";

export interface PlannedType {
  readonly id: string;
  /** In PascalCase, unique in its contract in any case. */
  readonly name: string;
  readonly shape: Shape;
  readonly face: Face;
  /** For a type without a name of its own: the type around it, and its name there, in PascalCase. */
  readonly inside?: { readonly type: string; readonly name: string };
  readonly description?: string;
  readonly deprecated?: string;
}

/** A shared parameter, which the connection supplies once. */
export interface StandingParameter {
  readonly name: string;
  readonly type: Reference;
  readonly description?: string;
}

export interface PlannedArgument {
  /** In camelCase, unique in its call. */
  readonly name: string;
  /** Another such name, for a language that cannot use the first. */
  readonly apart: string;
  readonly source:
    | { readonly kind: "parameter"; readonly parameter: Parameter }
    | {
        readonly kind: "body";
        readonly body: RequestBody;
        readonly content: Content;
        /** The other media types in which it can be sent. */
        readonly others: readonly { readonly content: Content; readonly type: Reference }[];
      };
  readonly type: Reference;
  readonly required: boolean;
  /** Whether the connection supplies it unless it is given. */
  readonly standing: boolean;
}

export interface PlannedResponse {
  readonly status: string;
  readonly form: Content["form"] | "none";
  readonly mediaType?: string;
  readonly type?: Reference;
  readonly description?: string;
}

export interface RestCall {
  /** In camelCase, unique in its contract in any case. */
  readonly name: string;
  /** The names of the types that belong to this call, unique in its contract. */
  readonly typeNames: {
    readonly args: string;
    readonly answer: string;
    readonly failure: string;
    readonly headers: string;
    readonly answers: string;
  };
  readonly group: string;
  readonly operation: RestOperation;
  readonly arguments: readonly PlannedArgument[];
  readonly answers: readonly PlannedResponse[];
  /** The response by requested media type, the default one first; empty if there is no choice. */
  readonly answerChoices: readonly AnswerChoice[];
  readonly failures: readonly PlannedResponse[];
  /** How all pages of a list are read; absent if the call has no pages. */
  readonly paging?: PlannedPaging;
  /** Every header that a response declares, each once. */
  readonly headers: readonly PlannedHeader[];
}

export interface AnswerChoice {
  readonly mediaType: string;
  readonly answers: readonly PlannedResponse[];
}

/** The paging of a call. */
export interface PlannedPaging {
  readonly by: PagingKind;
  /** The names in JSON from the response to its list of items; empty if the response is the list. */
  readonly items: readonly string[];
  readonly item: Reference;
  /** The argument that selects the page; absent for links, which contain everything. */
  readonly argument?: string;
  /** By cursor: the names in JSON from the response to the next cursor. */
  readonly next?: readonly string[];
  /** By page number: the first one. */
  readonly first?: number;
  /** Whether neither the contract nor the configuration declares it. */
  readonly isRecognised: boolean;
}

/**
 * How the next page is selected: by the end of the last one, by the number of items to skip, by number, or by a link.
 */
export type PagingKind = "cursor" | "offset" | "number" | "link";

export interface PlannedHeader {
  /** In camelCase, unique in its call. */
  readonly name: string;
  readonly field: Field;
}

export interface GraphqlCall {
  /** The operation's name in PascalCase, unique in its contract. */
  readonly name: string;
  readonly typeNames: { readonly variables: string; readonly failure: string };
  readonly operation: QueryOperation;
  readonly variables: readonly Field[];
  readonly answer: Reference;
  /** Sealed fragments only: the response with all fields of its fragments. */
  readonly whole?: Reference;
}

export interface PlannedFragment {
  /** In PascalCase, unique in its contract. */
  readonly name: string;
  /** Its name in the query documents. */
  readonly fragment: string;
  readonly on: string;
  readonly reference: Reference;
}
