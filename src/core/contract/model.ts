import type { ProblemCode } from "../problem/codes.js";
import type { Place, PointerPlace } from "../problem/place.js";

/** The language-neutral model of one contract. Every node is read-only. */
export type Contract = RestContract | GraphqlContract;

interface ContractBase {
  /** Its name in the configuration. */
  readonly name: string;
  readonly title: string;
  readonly version: string;
  readonly description?: string;
  /** Named definitions, by the key of `named` shapes. */
  readonly types: ReadonlyMap<string, TypeDefinition>;
  readonly setAside: readonly SetAside[];
}

export interface RestContract extends ContractBase {
  readonly protocol: "rest";
  /** As in the document, for example "3.1.0". */
  readonly dialect: string;
  readonly servers: readonly Server[];
  readonly authSchemes: ReadonlyMap<string, AuthScheme>;
  readonly operations: readonly RestOperation[];
  /** Requests that the server sends on its own, to receivers that registered outside of the API. */
  readonly webhooks: readonly SentRequest[];
  /** The contract's tags, by name. */
  readonly tags: ReadonlyMap<string, Tag>;
}

/** A request from the server: a webhook, or a callback that an operation registers. */
export interface SentRequest {
  readonly name: string;
  /** Callbacks only: the expression for the address, for example "{$request.body#/notify}". */
  readonly address?: string;
  readonly operation: RestOperation;
}

export interface Tag {
  readonly summary?: string;
  readonly description?: string;
  /** OpenAPI 3.2: the parent tag. */
  readonly parent?: string;
}

export interface GraphqlContract extends ContractBase {
  readonly protocol: "graphql";
  readonly roots: Readonly<Partial<Record<GraphqlRoot, string>>>;
  /** Every output and input field by schema coordinate, for example "Voyage.crew". */
  readonly fields: ReadonlyMap<string, GraphqlField>;
  /** The directives that query documents may use besides the standard ones, by name without the "@". */
  readonly directives: ReadonlyMap<string, GraphqlDirective>;
}

export interface GraphqlDirective {
  readonly name: string;
  readonly arguments: readonly Field[];
  readonly place: Place;
}

export type GraphqlRoot = "query" | "mutation" | "subscription";

export interface GraphqlField {
  readonly coordinate: string;
  readonly type: Reference;
  readonly arguments: readonly Field[];
  readonly deprecated?: string;
  readonly place: Place;
}

/** A part of a contract that is skipped in the SDK, with the reason. */
export interface SetAside {
  /** What is missing, for example "GET /berths/{berthId}". */
  readonly what: string;
  readonly why: string;
  /** A code that `rhema explain` explains. */
  readonly code: ProblemCode;
  readonly place: Place;
}

export interface TypeDefinition {
  /** The key in the contract's table. */
  readonly key: string;
  /** The contract's own name for it. */
  readonly name: string;
  readonly shape: Shape;
  /** Whether the definition itself allows null. */
  readonly nullable: boolean;
  /** GraphQL only: the kind of definition. */
  readonly role?: "object" | "interface" | "union" | "enum" | "input" | "scalar";
  /** GraphQL only: the interfaces that it implements. */
  readonly implements?: readonly string[];
  readonly description?: string;
  readonly deprecated?: string;
  readonly example?: unknown;
  readonly place: Place;
}

/** A use of a shape. The use decides whether the value may be null, and the field whether it may be absent. */
export interface Reference {
  readonly shape: Shape;
  readonly nullable: boolean;
}

export interface Constraints {
  readonly minimum?: number;
  readonly maximum?: number;
  readonly exclusiveMinimum?: number;
  readonly exclusiveMaximum?: number;
  readonly multipleOf?: number;
  readonly minLength?: number;
  readonly maxLength?: number;
  readonly pattern?: string;
  readonly minItems?: number;
  readonly maxItems?: number;
  readonly uniqueItems?: boolean;
}

export type ChoiceValue = string | number | boolean;

export type Shape =
  | { readonly kind: "text"; readonly format?: string; readonly constraints?: Constraints }
  | { readonly kind: "integer"; readonly format?: string; readonly constraints?: Constraints }
  | { readonly kind: "number"; readonly format?: string; readonly constraints?: Constraints }
  | { readonly kind: "boolean" }
  | { readonly kind: "literal"; readonly value: ChoiceValue }
  | ChoiceShape
  | RecordShape
  | { readonly kind: "list"; readonly item: Reference; readonly constraints?: Constraints }
  | { readonly kind: "map"; readonly value: Reference }
  | TupleShape
  | UnionShape
  | { readonly kind: "bytes" }
  | AnyShape
  | NamedShape;

export interface ChoiceShape {
  readonly kind: "choice";
  readonly values: readonly Choice[];
  readonly description?: string;
  /** Identifies the member of a union, so a value that is not listed belongs to another member. */
  readonly isTag?: boolean;
}

export interface TupleShape {
  readonly kind: "tuple";
  readonly items: readonly Reference[];
  /** The shape of further items; absent if there are none. */
  readonly rest?: Reference;
  /** The number of required items. Default: all. */
  readonly needed?: number;
}

export interface Choice {
  readonly value: ChoiceValue;
  readonly description?: string;
  readonly deprecated?: string;
}

export interface NamedShape {
  readonly kind: "named";
  /** The key in the contract's table of types. */
  readonly key: string;
}

/** "unsaid": the contract gives no type. "scalar": a GraphQL scalar without a mapping. */
export interface AnyShape {
  readonly kind: "any";
  readonly scalar?: string;
}

export interface RecordShape {
  readonly kind: "record";
  readonly fields: readonly Field[];
  /** The shape of undeclared keys; absent if the contract does not give one. */
  readonly rest?: Reference;
  /** Undeclared keys are forbidden. */
  readonly closed?: boolean;
  /** GraphQL only: exactly one field is required. */
  readonly oneOf?: boolean;
  /** GraphQL only: fragments whose fields are present but visible only to a component that names the fragment. */
  readonly seals?: readonly Seal[];
  /** GraphQL only, if fragments are types: the fragments that are always spread here, sorted. */
  readonly spreads?: readonly string[];
  /**
   * GraphQL only, if fragments are types: the object types that a value can have. Empty for a type that the schema does
   * not have yet.
   */
  readonly objects?: readonly string[];
  /** The contract's description, if the record has no name. */
  readonly description?: string;
}

export interface Seal {
  /** The fragment's name. */
  readonly fragment: string;
  /** False if a condition can leave it out. */
  readonly required: boolean;
}

export interface Field {
  /** The name in JSON. */
  readonly name: string;
  readonly type: Reference;
  /** False if the field may be absent. */
  readonly required: boolean;
  readonly face?: "answer" | "request";
  /** GraphQL only: the SDK adds it to the query to distinguish types. */
  readonly added?: true;
  readonly default?: unknown;
  readonly description?: string;
  /** Why it can be null or absent, in the terms of the contract or the query. */
  readonly reason?: string;
  readonly deprecated?: string;
  readonly example?: unknown;
  readonly place: Place;
}

export interface UnionShape {
  readonly kind: "union";
  readonly members: readonly Reference[];
  readonly tag?: UnionTag;
  /**
   * GraphQL only: the shape of members that the schema does not have yet. If all others have the same fields, there is
   * only one member besides it.
   */
  readonly newer?: RecordShape;
  readonly description?: string;
}

export interface UnionTag {
  /** The name in JSON of the field that identifies the member. */
  readonly field: string;
  /** The tag values of each member, in the order of the members. */
  readonly values: readonly (readonly string[])[];
}

export interface Server {
  readonly url: string;
  readonly description?: string;
  readonly variables: ReadonlyMap<string, ServerVariable>;
}

export interface ServerVariable {
  readonly default: string;
  /** The allowed values; absent if every value is allowed. */
  readonly values?: readonly string[];
  readonly description?: string;
}

export type AuthScheme =
  | { readonly kind: "bearer" | "basic"; readonly description?: string }
  /** Another HTTP authentication scheme. The credential follows its name. */
  | { readonly kind: "scheme"; readonly scheme: string; readonly description?: string }
  /** A client certificate, which is part of the transport. */
  | { readonly kind: "certificate"; readonly description?: string }
  | {
      readonly kind: "key";
      readonly in: "header" | "query" | "cookie";
      readonly name: string;
      readonly description?: string;
    };

export type ParameterLocation = "path" | "query" | "querystring" | "header" | "cookie";

/**
 * How a value is written (OpenAPI 3.1, section 4.8.12.3). "tabDelimited" is from OpenAPI 2.0, "json" is a `content`
 * parameter.
 */
export type ParameterStyle =
  "simple" | "label" | "matrix" | "form" | "spaceDelimited" | "pipeDelimited" | "tabDelimited" | "deepObject" | "json";

export interface Parameter extends Field {
  readonly in: ParameterLocation;
  readonly style: ParameterStyle;
  readonly explode: boolean;
  readonly allowReserved: boolean;
  /** The place of its schema. */
  readonly schema: PointerPlace;
}

export interface Content {
  readonly mediaType: string;
  readonly form: MediaForm;
  /** The type of the whole content, or of one item if the content is a stream. */
  readonly type: Reference;
  /** The place of its schema. */
  readonly schema: PointerPlace;
  /** How fields of a form are written, if not in the default way. */
  readonly encoding?: ReadonlyMap<string, FieldEncoding>;
}

/** How the body of a media type is written and read. The last three are streams of items. */
export type MediaForm = "json" | "text" | "bytes" | "urlencoded" | "multipart" | StreamForm;
export type StreamForm = "events" | "lines" | "sequence";

/**
 * Returns whether a form of a body is a stream.
 *
 * @param form one of `MediaForm`, or another text
 */
export function isStream(form: string): form is StreamForm {
  return form === "events" || form === "lines" || form === "sequence";
}

export interface FieldEncoding {
  readonly contentType?: string;
  readonly style?: ParameterStyle;
  readonly explode?: boolean;
}

export interface RequestBody {
  readonly required: boolean;
  readonly contents: readonly Content[];
  readonly description?: string;
  readonly place: Place;
}

export interface Response {
  /** "200", "4XX" or "default". */
  readonly status: string;
  readonly description?: string;
  /** Empty if the response has no body. */
  readonly contents: readonly Content[];
  readonly headers: readonly Field[];
  readonly place: Place;
}

export interface RestOperation {
  /** The contract's operationId, or undefined. */
  readonly operationId?: string;
  readonly method: string;
  readonly path: string;
  /** The first tag, otherwise the first fixed segment of the path. */
  readonly group: string;
  readonly tags: readonly string[];
  readonly parameters: readonly Parameter[];
  readonly body?: RequestBody;
  readonly responses: readonly Response[];
  /** Alternatives, each a list of schemes that are needed together. Empty if no auth is declared. */
  readonly auth: readonly (readonly string[])[];
  /** The servers of this operation alone; empty if it uses the contract's. */
  readonly servers: readonly Server[];
  readonly callbacks: readonly SentRequest[];
  readonly summary?: string;
  readonly description?: string;
  readonly deprecated?: string;
  readonly place: Place;
}

/**
 * Returns the label of an operation: "GET /berths".
 *
 * @param operation its method in any case, and its path
 */
export function operationLabel(operation: Pick<RestOperation, "method" | "path">): string {
  return `${operation.method.toUpperCase()} ${operation.path}`;
}

/**
 * Returns a path or label without the names of its path parameters, which are not sent.
 *
 * @param path a path template such as "/berths/{berthId}"
 */
export function nameless(path: string): string {
  return path.replace(/\{[^{}]*\}/g, "{}");
}
