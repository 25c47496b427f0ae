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
 * What an SDK holds, before any language spells it: wire names, roles, shapes, and one stable name for every record,
 * union and choice. Shapes of a plan refer to planned types only, by id.
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
  /** Places where the contract says nothing about a value. */
  readonly untyped: number;
  /** Names that are not what the contract says, because others want the same. */
  readonly clashes: readonly NameClash[];
}

export interface RestPlan extends ContractPlanBase {
  readonly protocol: "rest";
  readonly servers: readonly Server[];
  readonly authSchemes: ReadonlyMap<string, AuthScheme>;
  readonly standing: readonly StandingParameter[];
  readonly calls: readonly RestCall[];
  /** What the server sends on its own: webhooks, then callbacks. */
  readonly sent: readonly PlannedSent[];
  readonly tags: ReadonlyMap<string, Tag>;
}

/** A request that the server makes to the app's own server, as types. */
export interface PlannedSent {
  /** In PascalCase, unique in its contract. */
  readonly name: string;
  readonly replyName: string;
  readonly request: SentRequest;
  /** The operation whose callback it is; undefined for webhooks. */
  readonly of?: RestOperation;
  readonly query: readonly Field[];
  readonly headers: readonly Field[];
  readonly body?: Reference;
  /** What the server expects back. */
  readonly reply?: Reference;
}

export interface GraphqlPlan extends ContractPlanBase {
  readonly protocol: "graphql";
  readonly calls: readonly GraphqlCall[];
  readonly fragments: readonly PlannedFragment[];
}

/** Which direction a type is printed for; "both" when the directions do not differ. */
export type Face = "answer" | "request" | "both";

export interface PlannedType {
  readonly id: string;
  /** In PascalCase, unique in its contract whatever the case. */
  readonly name: string;
  readonly shape: Shape;
  readonly face: Face;
  /** Of a type without a name of its own: the type that it stands in, and what it is called there, in PascalCase. */
  readonly inside?: { readonly type: string; readonly name: string };
  readonly description?: string;
  readonly deprecated?: string;
}

/** A parameter that the connection supplies once. */
export interface StandingParameter {
  readonly name: string;
  readonly type: Reference;
  readonly description?: string;
}

export interface PlannedArgument {
  /** In camelCase, unique in its call. */
  readonly name: string;
  /** Another such name, for a language in which nothing can be called by the first. */
  readonly apart: string;
  readonly source:
    | { readonly kind: "parameter"; readonly parameter: Parameter }
    | {
        readonly kind: "body";
        readonly body: RequestBody;
        readonly content: Content;
        /** The other media types it can be sent as. */
        readonly others: readonly { readonly content: Content; readonly type: Reference }[];
      };
  readonly type: Reference;
  readonly required: boolean;
  /** Supplied by the connection unless given. */
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
  /** In camelCase, unique in its contract whatever the case. */
  readonly name: string;
  /** Names of the types that belong to this call, unique in its contract. */
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
  /** By media type what the call answers when asked for it, the usual one first; empty when there is no choice. */
  readonly answerChoices: readonly AnswerChoice[];
  readonly failures: readonly PlannedResponse[];
  /** How all pages of a list are gone through; absent when the call answers everything at once. */
  readonly paging?: PlannedPaging;
  /** Every header that a response declares, each once. */
  readonly headers: readonly PlannedHeader[];
}

export interface AnswerChoice {
  readonly mediaType: string;
  readonly answers: readonly PlannedResponse[];
}

/** How a call that answers page by page is gone through. */
export interface PlannedPaging {
  readonly by: PagingKind;
  /** Wire names from the answer to its list of items; empty when the answer is the list. */
  readonly items: readonly string[];
  readonly item: Reference;
  /** The argument that says which page; absent for links, which say it all. */
  readonly argument?: string;
  /** By cursor: wire names from the answer to the next cursor. */
  readonly next?: readonly string[];
  /** By page number: the first one. */
  readonly first?: number;
  /** The contract does not say it, and the configuration neither. */
  readonly isRecognised: boolean;
}

/** What tells which page: where the last one ended, how many items to pass over, a number, or a link to the next. */
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
  /** Sealed fragments only: the answer with everything in it that they hide. */
  readonly whole?: Reference;
}

export interface PlannedFragment {
  /** In PascalCase, unique in its contract. */
  readonly name: string;
  /** As the query documents call it. */
  readonly fragment: string;
  readonly on: string;
  readonly reference: Reference;
}
