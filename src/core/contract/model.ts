import type { ProblemCode } from "../problem/codes.js";
import type { Place, PointerPlace } from "../problem/place.js";

/** The language-neutral model of one contract. Every node is read-only. */
export type Contract = RestContract | GraphqlContract;

interface ContractBase {
  /** The name the configuration gives it. */
  readonly name: string;
  readonly title: string;
  readonly version: string;
  readonly description?: string;
  /** Named definitions, by the key that `named` shapes use. */
  readonly types: ReadonlyMap<string, TypeDefinition>;
  readonly setAside: readonly SetAside[];
}

export interface RestContract extends ContractBase {
  readonly protocol: "rest";
  /** As the document spells it, for example "3.1.0". */
  readonly dialect: string;
  readonly servers: readonly Server[];
  readonly authSchemes: ReadonlyMap<string, AuthScheme>;
  readonly operations: readonly RestOperation[];
  /** What the server sends on its own, to whoever registered outside of the API. */
  readonly webhooks: readonly SentRequest[];
  /** What the contract says about its tags, by name. */
  readonly tags: ReadonlyMap<string, Tag>;
}

/** A request that the server makes: a webhook, or a callback that an operation registers. */
export interface SentRequest {
  readonly name: string;
  /** Callbacks only: the expression that gives the address, for example "{$request.body#/notify}". */
  readonly address?: string;
  readonly operation: RestOperation;
}

export interface Tag {
  readonly summary?: string;
  readonly description?: string;
  /** OpenAPI 3.2: the tag it stands below. */
  readonly parent?: string;
}

export interface GraphqlContract extends ContractBase {
  readonly protocol: "graphql";
  readonly roots: Readonly<Partial<Record<GraphqlRoot, string>>>;
  /** Every output and input field by schema coordinate, for example "Voyage.crew". */
  readonly fields: ReadonlyMap<string, GraphqlField>;
  /** What query documents may say beside what every schema has, by name without the "@". */
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

/** Part of a contract that is left out of the SDK, and why. */
export interface SetAside {
  /** What is missing, for example "GET /berths/{berthId}". */
  readonly what: string;
  readonly why: string;
  /** The kind of fault, which `rhema explain` knows. */
  readonly code: ProblemCode;
  readonly place: Place;
}

export interface TypeDefinition {
  /** Key in the contract's table. */
  readonly key: string;
  /** The contract's own name for it. */
  readonly name: string;
  readonly shape: Shape;
  /** The definition itself admits null. */
  readonly nullable: boolean;
  /** GraphQL only: what kind of definition it is. */
  readonly role?: "object" | "interface" | "union" | "enum" | "input" | "scalar";
  /** GraphQL only: the interfaces it implements. */
  readonly implements?: readonly string[];
  readonly description?: string;
  readonly deprecated?: string;
  readonly example?: unknown;
  readonly place: Place;
}

/** A use of a shape. Whether it may be null belongs to the use; whether it may be absent to the field. */
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
  /** Tells the members of a union apart, so a value that is not listed belongs to another member. */
  readonly isTag?: boolean;
}

export interface TupleShape {
  readonly kind: "tuple";
  readonly items: readonly Reference[];
  /** Shape of further items; absent when there may be none. */
  readonly rest?: Reference;
  /** How many of the items are there in any case; all when absent. */
  readonly needed?: number;
}

export interface Choice {
  readonly value: ChoiceValue;
  readonly description?: string;
  readonly deprecated?: string;
}

export interface NamedShape {
  readonly kind: "named";
  /** Key into the contract's table of types. */
  readonly key: string;
}

/** "unsaid": the contract says nothing here. "scalar": a GraphQL scalar without a mapping. */
export interface AnyShape {
  readonly kind: "any";
  readonly scalar?: string;
}

export interface RecordShape {
  readonly kind: "record";
  readonly fields: readonly Field[];
  /** Shape of keys that are not declared; absent when the contract does not give one. */
  readonly rest?: Reference;
  /** Undeclared keys are forbidden. */
  readonly closed?: boolean;
  /** GraphQL only: exactly one field has to be given. */
  readonly oneOf?: boolean;
  /** GraphQL only: fragments whose fields are there, and which only a component that names the fragment sees. */
  readonly seals?: readonly Seal[];
  /** GraphQL only, where fragments are types: those that are spread here whatever holds, sorted. */
  readonly spreads?: readonly string[];
  /** GraphQL only, where fragments are types: the object types that a value can have; none of those that are known. */
  readonly objects?: readonly string[];
  /** The contract's words, where the record stands without a name. */
  readonly description?: string;
}

export interface Seal {
  /** The fragment's name. */
  readonly fragment: string;
  /** False: a condition may leave it out. */
  readonly required: boolean;
}

export interface Field {
  /** As on the wire. */
  readonly name: string;
  readonly type: Reference;
  /** False: the field may be absent. */
  readonly required: boolean;
  readonly face?: "answer" | "request";
  /** GraphQL only: it is asked for although the query does not, to tell types apart. */
  readonly added?: true;
  readonly default?: unknown;
  readonly description?: string;
  /** Why it can be null or absent, in the contract's or the query's own terms. */
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
   * GraphQL only: what a member looks like that the schema does not have yet. Where all others answer alike there is only
   * one member beside it.
   */
  readonly newer?: RecordShape;
  readonly description?: string;
}

export interface UnionTag {
  /** Wire name of the field that tells the members apart. */
  readonly field: string;
  /** Tag values of each member, in the order of the members. */
  readonly values: readonly (readonly string[])[];
}

export interface Server {
  readonly url: string;
  readonly description?: string;
  readonly variables: ReadonlyMap<string, ServerVariable>;
}

export interface ServerVariable {
  readonly default: string;
  /** The values it may have; absent when any will do. */
  readonly values?: readonly string[];
  readonly description?: string;
}

export type AuthScheme =
  | { readonly kind: "bearer" | "basic"; readonly description?: string }
  /** Another scheme of HTTP authentication; the credential follows its name. */
  | { readonly kind: "scheme"; readonly scheme: string; readonly description?: string }
  /** A client certificate, which belongs to the transport. */
  | { readonly kind: "certificate"; readonly description?: string }
  | {
      readonly kind: "key";
      readonly in: "header" | "query" | "cookie";
      readonly name: string;
      readonly description?: string;
    };

export type ParameterLocation = "path" | "query" | "querystring" | "header" | "cookie";

/** How a value is written (OpenAPI 3.1, section 4.8.12.3); "tabDelimited" is 2.0's, "json" a `content` parameter. */
export type ParameterStyle =
  "simple" | "label" | "matrix" | "form" | "spaceDelimited" | "pipeDelimited" | "tabDelimited" | "deepObject" | "json";

export interface Parameter extends Field {
  readonly in: ParameterLocation;
  readonly style: ParameterStyle;
  readonly explode: boolean;
  readonly allowReserved: boolean;
  /** Where its schema stands. */
  readonly schema: PointerPlace;
}

export interface Content {
  readonly mediaType: string;
  readonly form: MediaForm;
  /** Of the whole content; of one item where the content is a stream. */
  readonly type: Reference;
  /** Where its schema stands. */
  readonly schema: PointerPlace;
  /** How fields of a form are written, where that is not as usual. */
  readonly encoding?: ReadonlyMap<string, FieldEncoding>;
}

/** How the bytes of a media type are written and read; the last three are streams of items. */
export type MediaForm = "json" | "text" | "bytes" | "urlencoded" | "multipart" | StreamForm;
export type StreamForm = "events" | "lines" | "sequence";

/** Returns whether a form of a body is a stream. */
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
  /** Empty when the response has no body. */
  readonly contents: readonly Content[];
  readonly headers: readonly Field[];
  readonly place: Place;
}

export interface RestOperation {
  /** The contract's operationId, or undefined. */
  readonly operationId?: string;
  readonly method: string;
  readonly path: string;
  /** First tag, else the first fixed segment of the path. */
  readonly group: string;
  readonly tags: readonly string[];
  readonly parameters: readonly Parameter[];
  readonly body?: RequestBody;
  readonly responses: readonly Response[];
  /** Alternatives; each names the schemes needed together. Empty: no auth declared. */
  readonly auth: readonly (readonly string[])[];
  /** Servers of this operation alone; empty when it uses the contract's. */
  readonly servers: readonly Server[];
  readonly callbacks: readonly SentRequest[];
  readonly summary?: string;
  readonly description?: string;
  readonly deprecated?: string;
  readonly place: Place;
}

/** "GET /berths", as people call an operation. */
export function operationLabel(operation: Pick<RestOperation, "method" | "path">): string {
  return `${operation.method.toUpperCase()} ${operation.path}`;
}

/** A path or label without the names of its path parameters, which are not sent. */
export function nameless(path: string): string {
  return path.replace(/\{[^{}]*\}/g, "{}");
}
