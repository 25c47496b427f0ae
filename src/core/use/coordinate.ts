declare const brand: unique symbol;

/**
 * A part of a contract or SDK that a query document or source depends on, as one text. It is a schema coordinate
 * ("Voyage.eta", "Query.voyages(first:)", "@shown(by:)") or a name of an SDK ("listBerths", "Berth.note"), with the way
 * it is used (`Way`). Only this module builds and reads coordinates, so that two are equal if their texts are.
 */
export type Coordinate = string & { readonly [brand]: true };

/** The ways of use, by the mark after the path. */
const marks = {
  /** An argument or field is left out: "Query.voyages(first:)?". */
  omitted: "?",
  /** The value comes from a variable, which has a declared type: "Query.voyages(first:)$". */
  variable: "$",
  /** The value sent may be null: "VoyageFilter.arrivingOn$?". */
  maybeNull: "$?",
  /** The types of a union or interface are distinguished: "Located*". */
  toldApart: "*",
  /** A type is recognised by its name in a response: "Vessel~". */
  byName: "~",
  /** A key is read from every possible type of a union or interface: "Located&". */
  sharedKey: "&",
  /** The same, by a document that also distinguishes the types: "Located+". */
  sharedKeyToldApart: "+",
  /** A record is built as a whole: "Berth{}". */
  built: "{}",
  /** A match must list all values: "BerthStatus!". */
  wholeMatch: "!",
  /** It is unknown which field is used: "Berth.*". */
  anyMember: ".*",
} as const;

/** The way something is used, apart from being named. */
export type Way = keyof typeof marks;

/** The parts of a coordinate. */
export interface CoordinateParts {
  /** The name, with members, an argument or a position after it. */
  readonly path: Coordinate;
  /** The way of use; undefined if it is only named. */
  readonly way: Way | undefined;
}

/** Longer marks come first, because "$?" also ends with "?", and ".*" with "*". */
const byMark = (Object.entries(marks) as [Way, string][]).sort(([, a], [, b]) => b.length - a.length);

/**
 * Builds a coordinate.
 *
 * @param path a name, or a path from another function of this module
 * @param way the way of use; left out if it is only named
 */
export function printCoordinate(path: string, way?: Way): Coordinate {
  return (way === undefined ? path : path + marks[way]) as Coordinate;
}

/** Splits a coordinate into its parts. */
export function readCoordinate(text: Coordinate): CoordinateParts {
  for (const [way, mark] of byMark)
    if (text.endsWith(mark)) return { path: printCoordinate(text.slice(0, -mark.length)), way };
  return { path: text, way: undefined };
}

/**
 * Returns the coordinate of a member.
 *
 * @param owner a type, record or enum
 */
export function memberOf(owner: string, member: string): Coordinate {
  return printCoordinate(`${owner}.${member}`);
}

/**
 * Returns the coordinate of a member of each record that is built.
 *
 * @param owners only coordinates of built records count
 * @returns the coordinates in the order of the owners
 */
export function membersOfBuilt(owners: readonly Coordinate[], member: string): Coordinate[] {
  return owners.map((owner) => (isBuilt(owner) ? memberOf(readCoordinate(owner).path, member) : owner));
}

/**
 * Returns the coordinate of an argument.
 *
 * @param owner a field or directive
 */
export function argumentOf(owner: string, argument: string): Coordinate {
  return printCoordinate(`${owner}(${argument}:)`);
}

/** Returns the coordinate of a directive. */
export function directiveOf(name: string): Coordinate {
  return printCoordinate(`@${name}`);
}

/**
 * Returns the coordinate of a position of a record: "Berth(2)".
 *
 * @param position from 1
 */
export function positionOf(owner: string, position: number): Coordinate {
  return printCoordinate(`${owner}(${String(position)})`);
}

/**
 * Returns the coordinate of an argument of a function in an SDK: "listBerths(status)".
 *
 * @param call the name of the function
 */
export function givenTo(call: string, argument: string): Coordinate {
  return printCoordinate(`${call}(${argument})`);
}

/** Returns the coordinate of a step from one type of a schema to another: "Voyage:Located". */
export function bridgeOf(from: string, to: string): Coordinate {
  return printCoordinate(`${from}:${to}`);
}

/**
 * Returns the coordinate of a position of each record that is built: "Berth(2)".
 *
 * @param owners only coordinates of built records count
 * @param position from 1
 */
export function positionsOfBuilt(owners: readonly Coordinate[], position: number): Coordinate[] {
  return owners.map((owner) => (isBuilt(owner) ? positionOf(readCoordinate(owner).path, position) : owner));
}

/** The name of the function with which source creates a connection, in every SDK. */
export const connectionCoordinate = printCoordinate("connection");

/** Returns whether a coordinate is of a record that is built as a whole. */
export function isBuilt(text: Coordinate): boolean {
  return readCoordinate(text).way === "built";
}

/** Returns whether a coordinate names an argument. */
export function isArgument(text: Coordinate): boolean {
  return readCoordinate(text).path.endsWith(":)");
}

/** Returns whether a coordinate is of a key that is read from several types. */
export function isSharedKey(text: Coordinate): boolean {
  const { way } = readCoordinate(text);
  return way === "sharedKey" || way === "sharedKeyToldApart";
}

/** Returns whether a coordinate names a member, or comes from a variable with a declared type. */
export function isMemberOrVariable(text: Coordinate): boolean {
  return /[.$]/.test(text);
}

/**
 * Returns the type of a schema that a field, an argument or a value belongs to.
 *
 * @param text a schema coordinate
 */
export function typeOf(text: string): string {
  return text.split(".")[0] ?? text;
}

/** Returns whether a coordinate names a member of another one. */
export function isInside(text: string, owner: string): boolean {
  return text.startsWith(`${owner}.`);
}

/** Returns the name in the source, without the way of use. A name in an SDK may end with "$". */
export function nameOf(text: Coordinate): string {
  const { path, way } = readCoordinate(text);
  return way === "omitted" || way === "wholeMatch" || way === "built" ? path : text;
}

/** Returns all possible owners of the named member: classes may be nested, and a name in JSON may have dots. */
export function ownersOf(text: Coordinate): Coordinate[] {
  const { path, way } = readCoordinate(text);
  const owners = way === "built" ? [path] : [];
  for (let at = path.indexOf("."); at >= 0; at = path.indexOf(".", at + 1))
    owners.push(printCoordinate(path.slice(0, at)));
  return owners;
}
