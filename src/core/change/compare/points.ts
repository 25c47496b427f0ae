import type { Coordinate } from "../../use/coordinate.js";
import type {
  AuthScheme,
  Choice,
  Field,
  Parameter,
  RecordShape,
  Reference,
  RequestBody,
  RestContract,
  SentRequest,
  Server,
  TypeDefinition,
} from "../../contract/model.js";
import type { PlannedResponse, RestCall } from "../../sdk/sdkPlan.js";
import type { Place } from "../../problem/place.js";

/** Which direction a change is judged for; "operation" when it is about neither alone. */
export type ChangeFace = "ask" | "answer" | "operation";

/** A place at which two contracts are compared. What is on one side only came or went. */
export interface Point {
  readonly face: ChangeFace;
  /** As people name the place: "GET /berths", "Berth.note", "Query.voyages(first:)". */
  readonly subject: string;
  readonly placeBefore?: Place | undefined;
  readonly placeAfter?: Place | undefined;
  /** How query documents and source depend on the place: schema coordinates, or names of the SDK and their members. */
  readonly coordinates: readonly Coordinate[];
  /** The name that source has to use to be hit, for a field or parameter. */
  readonly word?: string | undefined;
}

interface Sides<T> {
  readonly before?: T | undefined;
  readonly after?: T | undefined;
}

interface Pair<T> {
  readonly before: T;
  readonly after: T;
}

/** What is asked for by name beside a body: a parameter of an operation, or an argument of a GraphQL field. */
export interface Asked extends Field, Partial<Pick<Parameter, "in" | "style" | "explode">> {
  /** The connection supplies it. */
  readonly isStanding?: boolean;
  /** What it is called in the SDK. */
  readonly argument?: string;
}

/** Everything that is compared, by the kind of place. */
export interface Points {
  readonly operation: Point & Sides<RestCall>;
  /** The auth of an operation, and the contracts that declare the schemes. */
  readonly auth: Point & Pair<RestCall> & { readonly contracts: Pair<RestContract> };
  /** A credential that the connection takes. */
  readonly scheme: Point & {
    readonly before: string;
    readonly scheme?: AuthScheme | undefined;
    /** Absent where the connection takes it no longer. */
    readonly after?: AuthScheme | undefined;
  };
  /** A server that calls have for themselves, for which the connection takes another address. */
  readonly ownServer: Point & { readonly before: string };
  /** Where calls are sent; `isOwn` where it is a single operation that has servers of its own on either side. */
  readonly servers: Point & Pair<readonly Server[]> & { readonly isOwn: boolean };
  readonly parameter: Point &
    Sides<Asked> & {
      readonly owner: string;
      readonly isGraphql: boolean;
      /** What a parameter that went turned into. */
      readonly successor?: Asked | undefined;
    };
  readonly body: Point & Sides<RequestBody> & { readonly owner: string };
  /** A media type that a body can be sent as; `usual` when it is the one that is sent unless asked otherwise. */
  readonly media: Point & {
    readonly owner: string;
    readonly usual: string;
    readonly offered: readonly string[];
    /** There are others, so that source may say its name. */
    readonly isChosen: boolean;
  };
  /** A media type that an answer can be asked for as. */
  readonly answerMedia: Point & { readonly owner: string; readonly before: string };
  /** The call that answers an operation item by item, beside the one that answers it as a whole. */
  readonly stream: Point & { readonly owner: string; readonly before: string };
  readonly status: Point &
    Sides<PlannedResponse> & {
      readonly owner: string;
      readonly role: "success" | "failure";
      readonly isStream: boolean;
      /** A new failure: the old SDK reads it as another one, which has another body. */
      readonly isMisread?: boolean;
      /** A new one: it has the body of another one that was there. */
      readonly isSame?: boolean;
    };
  readonly header: Point & Sides<Field> & { readonly owner: string };
  readonly field: Point &
    Sides<Field> & {
      readonly isGraphql: boolean;
      readonly successor?: Field | undefined;
      readonly records: Pair<RecordShape>;
      /** Coordinates of those who build the record as a whole. */
      readonly owner: readonly Coordinate[];
      /** Whether what the other side says of undeclared fields covers this one; undefined when it says nothing. */
      readonly isTakenByRest?: boolean | undefined;
    };
  /** A place that a record's fields stand at, where another one stands there now, or none. */
  readonly place: Point &
    Sides<string> & {
      readonly record: string;
      /** From 1 on. */
      readonly at: number;
      readonly isSameType: boolean;
    };
  readonly record: Point & Pair<RecordShape> & { readonly isGraphql: boolean };
  /** Two uses of a shape, behind their names. */
  readonly value: Point &
    Pair<Reference> & {
      readonly isGraphql: boolean;
      /** The value is written as text, whatever it is: a parameter. */
      readonly isWritten?: boolean | undefined;
      /** The value stands in a type that is both sent and answered. */
      readonly isShared?: boolean | undefined;
      /** It is a field's, which could be absent before. */
      readonly mayBeAbsent?: boolean | undefined;
      /** GraphQL: what may be selected of the new type that answers as the old one did: "name", "on Vessel". */
      readonly kept?: readonly string[] | undefined;
      /** It is a list of what was sent alone: "whole", or "split" where that is taken apart at a mark. */
      readonly asListOfOne?: "whole" | "split" | undefined;
    };
  readonly choice: Point &
    Sides<Choice["value"]> & {
      /** The choice stands in a type that is both sent and answered. */
      readonly isShared?: boolean | undefined;
    };
  /** A value of a choice that is on both sides. */
  readonly listed: Point & Pair<Choice>;
  /** A member of a union; `alone` when the other side was no union. */
  readonly member: Point &
    Sides<string> & {
      readonly alone: boolean;
      /** One side is a union, and the other one is not. */
      readonly isOtherForm: boolean;
      readonly lacksCommon?: boolean | undefined;
      /** GraphQL: the name of the member. */
      readonly key?: string;
      /** GraphQL: the interfaces of a new member. */
      readonly joins?: readonly string[] | undefined;
      /** What went is a record, which source tells from the others by its fields. */
      readonly isRecord?: boolean;
      readonly isGraphql: boolean;
    };
  readonly definition: Point & Sides<TypeDefinition> & { readonly successor?: TypeDefinition | undefined };
  /** Whether a GraphQL type implements an interface. */
  readonly implementation: Point &
    Sides<string> & {
      readonly type: string;
      /** All that the type implements now. */
      readonly joins?: readonly string[] | undefined;
      readonly isOpen: boolean;
    };
  /** A type of the SDK by its name. */
  readonly name: Point & {
    readonly before: string;
    readonly successor?: string | undefined;
    /** The SDK made the name up, for a shape that has none in the contract. */
    readonly isMadeUp?: boolean;
  };
  /** A member, by the names of the types that it has. */
  readonly spelling: Point & {
    readonly before: string;
    readonly after: string;
    /** Source says now of it whether it is sent, or no longer does. */
    readonly isMarked?: boolean;
    /** It was a union: what is sent is a member of it, which may have kept its name. */
    readonly isUnion?: boolean;
  };
  readonly paging: Point & { readonly before: string; readonly after?: string | undefined };
  readonly sent: Point & Sides<SentRequest>;
  readonly directive: Point & { readonly before: string };
}

export type PointKind = keyof Points;
