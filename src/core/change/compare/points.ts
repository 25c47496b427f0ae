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

/**
 * The direction for which a change is rated: "ask" for requests, "answer" for responses, "operation" for neither alone.
 */
export type ChangeFace = "ask" | "answer" | "operation";

/** A place at which two contracts are compared. A part on one side only was removed or added. */
export interface Point {
  readonly face: ChangeFace;
  /** Its name for people: "GET /berths", "Berth.note", "Query.voyages(first:)". */
  readonly subject: string;
  readonly placeBefore?: Place | undefined;
  readonly placeAfter?: Place | undefined;
  /** The coordinates of its uses: schema coordinates, or names of the SDK and their members. */
  readonly coordinates: readonly Coordinate[];
  /** The name that affected source contains, for a field or parameter. */
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

/** A named part of a request besides its body: a parameter of an operation, or an argument of a GraphQL field. */
export interface Asked extends Field, Partial<Pick<Parameter, "in" | "style" | "explode">> {
  /** Whether the connection supplies it. */
  readonly isStanding?: boolean;
  /** Its name in the SDK. */
  readonly argument?: string;
}

/** Everything that is compared, by the kind of place. */
export interface Points {
  readonly operation: Point & Sides<RestCall>;
  /** The auth of an operation, and the contracts that declare the schemes. */
  readonly auth: Point & Pair<RestCall> & { readonly contracts: Pair<RestContract> };
  /** A credential of the connection. */
  readonly scheme: Point & {
    readonly before: string;
    readonly scheme?: AuthScheme | undefined;
    /** Absent if the connection no longer has it. */
    readonly after?: AuthScheme | undefined;
  };
  /** A server for single calls, whose address is an option of the connection. */
  readonly ownServer: Point & { readonly before: string };
  /** The servers of calls; `isOwn` if a single operation has servers of its own on either side. */
  readonly servers: Point & Pair<readonly Server[]> & { readonly isOwn: boolean };
  readonly parameter: Point &
    Sides<Asked> & {
      readonly owner: string;
      readonly isGraphql: boolean;
      /** The parameter that replaced a removed one. */
      readonly successor?: Asked | undefined;
    };
  readonly body: Point & Sides<RequestBody> & { readonly owner: string };
  /** A media type of a body; `usual` if it is the default one. */
  readonly media: Point & {
    readonly owner: string;
    readonly usual: string;
    readonly offered: readonly string[];
    /** Whether there are others, so that source may contain its name. */
    readonly isChosen: boolean;
  };
  /** A media type that can be requested for a response. */
  readonly answerMedia: Point & { readonly owner: string; readonly before: string };
  /** The call for an operation's response item by item, next to the one for the whole response. */
  readonly stream: Point & { readonly owner: string; readonly before: string };
  readonly status: Point &
    Sides<PlannedResponse> & {
      readonly owner: string;
      readonly role: "success" | "failure";
      readonly isStream: boolean;
      /** Whether it is a new failure that the old SDK reads as another one, with another body. */
      readonly isMisread?: boolean;
      /** Whether it is a new failure with the body of another one that existed before. */
      readonly isSame?: boolean;
    };
  readonly header: Point & Sides<Field> & { readonly owner: string };
  readonly field: Point &
    Sides<Field> & {
      readonly isGraphql: boolean;
      readonly successor?: Field | undefined;
      readonly records: Pair<RecordShape>;
      /** The coordinates of code that builds the whole record. */
      readonly owner: readonly Coordinate[];
      /** Whether the other side's rule for undeclared fields covers this one; undefined if it has none. */
      readonly isTakenByRest?: boolean | undefined;
    };
  /** A position of a record's field that has another field now, or none. */
  readonly place: Point &
    Sides<string> & {
      readonly record: string;
      /** From 1. */
      readonly at: number;
      readonly isSameType: boolean;
    };
  readonly record: Point & Pair<RecordShape> & { readonly isGraphql: boolean };
  /** Two uses of a shape, with names replaced by definitions. */
  readonly value: Point &
    Pair<Reference> & {
      readonly isGraphql: boolean;
      /** Whether the value is written as text, whatever it is: a parameter. */
      readonly isWritten?: boolean | undefined;
      /** Whether the value is in a type for both directions. */
      readonly isShared?: boolean | undefined;
      /** Whether it belongs to a field that could be absent before. */
      readonly mayBeAbsent?: boolean | undefined;
      /**
       * GraphQL: the possible selections of the new type that give the same result as the old one: "name", "on Vessel".
       */
      readonly kept?: readonly string[] | undefined;
      /** Whether it is a list of what was a single value: "whole", or "split" if that is split at a separator. */
      readonly asListOfOne?: "whole" | "split" | undefined;
    };
  readonly choice: Point &
    Sides<Choice["value"]> & {
      /** Whether the enum is in a type for both directions. */
      readonly isShared?: boolean | undefined;
    };
  /** A value of an enum on both sides. */
  readonly listed: Point & Pair<Choice>;
  /** A member of a union; `alone` if the other side was not a union. */
  readonly member: Point &
    Sides<string> & {
      readonly alone: boolean;
      /** Whether one side is a union, and the other is not. */
      readonly isOtherForm: boolean;
      readonly lacksCommon?: boolean | undefined;
      /** GraphQL: the name of the member. */
      readonly key?: string;
      /** GraphQL: the interfaces of a new member. */
      readonly joins?: readonly string[] | undefined;
      /** Whether the removed part is a record, which source distinguishes from the others by its fields. */
      readonly isRecord?: boolean;
      readonly isGraphql: boolean;
    };
  readonly definition: Point & Sides<TypeDefinition> & { readonly successor?: TypeDefinition | undefined };
  /** Whether a GraphQL type implements an interface. */
  readonly implementation: Point &
    Sides<string> & {
      readonly type: string;
      /** All interfaces that the type has now. */
      readonly joins?: readonly string[] | undefined;
      readonly isOpen: boolean;
    };
  /** A type of the SDK by its name. */
  readonly name: Point & {
    readonly before: string;
    readonly successor?: string | undefined;
    /** Whether the SDK made up the name, for a shape without a name in the contract. */
    readonly isMadeUp?: boolean;
  };
  /** A member, by the names of its types. */
  readonly spelling: Point & {
    readonly before: string;
    readonly after: string;
    /** Whether source now marks if it is sent, or no longer does. */
    readonly isMarked?: boolean;
    /** Whether it was a union: the value sent is a member of it, which may have kept its name. */
    readonly isUnion?: boolean;
  };
  readonly paging: Point & { readonly before: string; readonly after?: string | undefined };
  readonly sent: Point & Sides<SentRequest>;
  readonly directive: Point & { readonly before: string };
}

export type PointKind = keyof Points;
