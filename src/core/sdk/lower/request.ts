import type { ParameterStyle, Reference, StreamForm } from "../../contract/model.js";
import type { PlannedArgument } from "../sdkPlan.js";
import type { Conversion } from "./values/conversion.js";

/** Where a value of a request comes from, and what becomes of it before it is written. */
export interface SentValue {
  readonly argument: PlannedArgument;
  /** The connection's standing parameter that stands in where the argument is absent. */
  readonly standing?: string;
  /** How it becomes what is on the wire. */
  readonly encode?: Conversion;
}

/** A part of a path: text as it is, or a value and how it is written. */
export type PathStep =
  | { readonly kind: "text"; readonly text: string }
  | {
      readonly kind: "value";
      readonly writer: "segment" | "label" | "matrix" | "json";
      /** The parameter's name on the wire. */
      readonly name: string;
      readonly value: SentValue;
      readonly explode: boolean;
    };

/** A part of a query. */
export interface QueryStep {
  readonly writer: "form" | "reserved" | "spaced" | "piped" | "tabbed" | "deepObject" | "json";
  /** The parameter's name on the wire; undefined where the value is the whole query. */
  readonly name: string | undefined;
  readonly value: SentValue;
  readonly explode: boolean;
}

export interface HeaderStep {
  readonly writer: "plain" | "json";
  readonly name: string;
  readonly value: SentValue;
  readonly explode: boolean;
}

/** A pair of the `Cookie` header; "whole" is a header of that name that the contract declares itself. */
export interface CookieStep {
  readonly writer: "form" | "json" | "whole";
  readonly name: string;
  readonly value: SentValue;
}

/** One of the media types that a body can be sent as. */
export interface BodyWay {
  readonly mediaType: string;
  readonly type: Reference;
  readonly value: SentValue;
  readonly writer: BodyWriter;
}

export type BodyWriter =
  | {
      readonly kind: "json";
      /** Undefined: `application/json`. */
      readonly mediaType: string | undefined;
      /** It holds integers that are written with all their digits. */
      readonly isExact: boolean;
    }
  | { readonly kind: "urlencoded" | "multipart"; readonly fields: readonly FormField[] }
  | { readonly kind: "items"; readonly form: StreamForm; readonly mediaType: string }
  | { readonly kind: "text" | "bytes"; readonly mediaType: string };

/** How a field of a form is written, as far as that is not as usual. */
export interface FormField {
  readonly name: string;
  readonly mediaType?: string;
  readonly style?: ParameterStyle;
  readonly explode?: boolean;
}

/** Everything that is decided about the request of a call. */
export interface RequestPlan {
  /** In upper case. */
  readonly method: string;
  readonly path: readonly PathStep[];
  readonly query: readonly QueryStep[];
  readonly headers: readonly HeaderStep[];
  /** Empty when the call sends none. */
  readonly cookies: readonly CookieStep[];
  /** The address of the server that this call has for itself, its variables at their defaults. */
  readonly server?: string;
  readonly body?: {
    readonly argument: PlannedArgument;
    /** The usual one first. */
    readonly ways: readonly BodyWay[];
  };
  /** Media types that are asked for; undefined when nothing is answered. */
  readonly accept?: string;
  /** Alternatives; each names the schemes whose credentials are needed together. */
  readonly auth: readonly (readonly string[])[];
}
