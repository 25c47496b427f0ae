import type { Coordinate } from "../../../core/use/coordinate.js";
import type { KnownClass, KnownFunction } from "./knownProgram.js";

/** What an SDK's own source says of names on the wire, and of what belongs together. */
export interface SdkModel {
  /** The class of the connection. */
  readonly connect: string;
  /** What the names of the contract's part begin with. */
  readonly namespace: string;
  /** What a class is called in coordinates; undefined for what is none of the contract's. */
  readonly coordinateOf: (known: KnownClass) => Coordinate | undefined;
  /** The field of an input that a class is there for; undefined for any other class. */
  readonly chosenField: (known: KnownClass) => string | undefined;
  /** The wire name of a property. */
  readonly member: (owner: string, property: string) => string;
  /** The name of a scheme by what the class of credentials calls it. */
  readonly scheme: (parameter: string) => string;
  /** The value of a constant of a choice; undefined where there is none of that name. */
  readonly constant: (owner: string, name: string) => string | undefined;
  readonly isCall: (known: KnownFunction) => boolean;
  /** The call that goes with what goes through its pages, or asks for another media type. */
  readonly callOf: (name: string) => string;
}
