import type { Coordinate } from "../../../core/use/coordinate.js";
import type { KnownClass, KnownFunction } from "./knownProgram.js";

/** What an SDK's own source shows about names in JSON, and about parts that belong together. */
export interface SdkModel {
  /** The class of the connection. */
  readonly connect: string;
  /** The prefix of names in the contract's part. */
  readonly namespace: string;
  /** Returns a class as a coordinate; undefined if it is not one of the contract's. */
  readonly coordinateOf: (known: KnownClass) => Coordinate | undefined;
  /** Returns the field of an input for which a class exists; undefined for any other class. */
  readonly chosenField: (known: KnownClass) => string | undefined;
  /** Returns the JSON name of a property. */
  readonly member: (owner: string, property: string) => string;
  /** Returns the name of a scheme by its name in the credentials' class. */
  readonly scheme: (parameter: string) => string;
  /** Returns the value of an enum's constant; undefined if there is none with that name. */
  readonly constant: (owner: string, name: string) => string | undefined;
  readonly isCall: (known: KnownFunction) => boolean;
  /** Returns the call of a function for its pages, or for another media type. */
  readonly callOf: (name: string) => string;
}
