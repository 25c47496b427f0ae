import type { ParameterStyle, Reference, StreamForm } from "../../contract/model.js";
import type { PlannedArgument } from "../sdkPlan.js";
import type { Conversion } from "./values/conversion.js";

/** The source of a value in a request, and its conversion. */
export interface SentValue {
  readonly argument: PlannedArgument;
  /** The connection's shared parameter that is used if the argument is absent. */
  readonly standing?: string;
  /** The conversion to JSON. */
  readonly encode?: Conversion;
}

/** A part of a path: fixed text, or a value with its style. */
export type PathStep =
  | { readonly kind: "text"; readonly text: string }
  | {
      readonly kind: "value";
      readonly writer: "segment" | "label" | "matrix" | "json";
      /** The parameter's name in the request. */
      readonly name: string;
      readonly value: SentValue;
      readonly explode: boolean;
    };

/** A part of a query. */
export interface QueryStep {
  readonly writer: "form" | "reserved" | "spaced" | "piped" | "tabbed" | "deepObject" | "json";
  /** The parameter's name in the request; undefined if the value is the whole query. */
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

/** A pair of the `Cookie` header. "whole" is a header of that name that the contract declares itself. */
export interface CookieStep {
  readonly writer: "form" | "json" | "whole";
  readonly name: string;
  readonly value: SentValue;
}

/** One of the media types in which a body can be sent. */
export interface BodyWay {
  readonly mediaType: string;
  readonly type: Reference;
  readonly value: SentValue;
  readonly writer: BodyWriter;
}

export type BodyWriter =
  | {
      readonly kind: "json";
      /** Undefined for `application/json`. */
      readonly mediaType: string | undefined;
      /** Whether it contains integers that are written with all their digits. */
      readonly isExact: boolean;
    }
  | { readonly kind: "urlencoded" | "multipart"; readonly fields: readonly FormField[] }
  | { readonly kind: "items"; readonly form: StreamForm; readonly mediaType: string }
  | { readonly kind: "text" | "bytes"; readonly mediaType: string };

/** How a field of a form is written, if not in the default way. */
export interface FormField {
  readonly name: string;
  readonly mediaType?: string;
  readonly style?: ParameterStyle;
  readonly explode?: boolean;
}

/** All decisions about the request of a call. */
export interface RequestPlan {
  /** In upper case. */
  readonly method: string;
  readonly path: readonly PathStep[];
  readonly query: readonly QueryStep[];
  readonly headers: readonly HeaderStep[];
  /** Empty if the call sends none. */
  readonly cookies: readonly CookieStep[];
  /** The address of a server for this call, with its variables at their defaults. */
  readonly server?: string;
  readonly body?: {
    readonly argument: PlannedArgument;
    /** The default one first. */
    readonly ways: readonly BodyWay[];
  };
  /** The requested media types; undefined if there is no response body. */
  readonly accept?: string;
  /** Alternatives, each a list of schemes whose credentials are needed together. */
  readonly auth: readonly (readonly string[])[];
}
