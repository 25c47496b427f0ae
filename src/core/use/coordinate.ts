declare const brand: unique symbol;

/**
 * What a query document or source depends on, as one text: a schema coordinate ("Voyage.eta", "Query.voyages(first:)",
 * "@shown(by:)") or a name of an SDK ("listBerths", "Berth.note"), and how (`Way`). Only this module makes coordinates
 * and takes them apart, so that two are equal when their texts are.
 */
export type Coordinate = string & { readonly [brand]: true };

/** How something is depended on, by the mark behind its path. */
const marks = {
  /** An argument or field is left out: "Query.voyages(first:)?". */
  omitted: "?",
  /** The value comes from a variable, which says its type: "Query.voyages(first:)$". */
  variable: "$",
  /** The value may be null when it is sent: "VoyageFilter.arrivingOn$?". */
  maybeNull: "$?",
  /** The types of a union or interface are told apart: "Located*". */
  toldApart: "*",
  /** A type is known by its name in an answer: "Vessel~". */
  byName: "~",
  /** A key is read of every type that a union or interface may be: "Located&". */
  sharedKey: "&",
  /** The same, by a document that also tells the types apart: "Located+". */
  sharedKeyToldApart: "+",
  /** A record is built as a whole: "Berth{}". */
  built: "{}",
  /** A match names everything there is: "BerthStatus!". */
  wholeMatch: "!",
  /** Which field it is cannot be seen: "Berth.*". */
  anyMember: ".*",
} as const;

/** How something is depended on, apart from being named. */
export type Way = keyof typeof marks;

/** A coordinate taken apart. */
export interface CoordinateParts {
  /** What is depended on: a name, and members, an argument or a part behind it. */
  readonly path: Coordinate;
  /** How; undefined where it is only named. */
  readonly way: Way | undefined;
}

/** Longer marks come first, because "$?" ends with "?" as well, and ".*" with "*". */
const byMark = (Object.entries(marks) as [Way, string][]).sort(([, a], [, b]) => b.length - a.length);

/**
 * Prints a coordinate.
 *
 * @param path what is depended on: a name, or a path that another function of this module made
 * @param way how; left out where it is only named
 */
export function printCoordinate(path: string, way?: Way): Coordinate {
  return (way === undefined ? path : path + marks[way]) as Coordinate;
}

/** Takes a coordinate apart. */
export function readCoordinate(text: Coordinate): CoordinateParts {
  for (const [way, mark] of byMark)
    if (text.endsWith(mark)) return { path: printCoordinate(text.slice(0, -mark.length)), way };
  return { path: text, way: undefined };
}

/** Returns the coordinate of a member of a type, record or choice. */
export function memberOf(owner: string, member: string): Coordinate {
  return printCoordinate(`${owner}.${member}`);
}

/** Returns the coordinate of a member of each record that is built; other coordinates stay. */
export function membersOfBuilt(owners: readonly Coordinate[], member: string): Coordinate[] {
  return owners.map((owner) => (isBuilt(owner) ? memberOf(readCoordinate(owner).path, member) : owner));
}

/** Returns the coordinate of an argument of a field or directive. */
export function argumentOf(owner: string, argument: string): Coordinate {
  return printCoordinate(`${owner}(${argument}:)`);
}

/** Returns the coordinate of a directive. */
export function directiveOf(name: string): Coordinate {
  return printCoordinate(`@${name}`);
}

/** Returns the coordinate of a position of a record, which counts from 1: "Berth(2)". */
export function positionOf(owner: string, position: number): Coordinate {
  return printCoordinate(`${owner}(${String(position)})`);
}

/** Returns the coordinate of an argument of a function in an SDK: "listBerths(status)". */
export function givenTo(call: string, argument: string): Coordinate {
  return printCoordinate(`${call}(${argument})`);
}

/** Returns the coordinate of a way to get from one type of a schema to another: "Voyage:Located". */
export function bridgeOf(from: string, to: string): Coordinate {
  return printCoordinate(`${from}:${to}`);
}

/** Returns the coordinate of a position, which counts from 1, of each record that is built: "Berth(2)". */
export function positionsOfBuilt(owners: readonly Coordinate[], position: number): Coordinate[] {
  return owners.map((owner) => (isBuilt(owner) ? positionOf(readCoordinate(owner).path, position) : owner));
}

/** What source makes a connection with, in every SDK. */
export const connectionCoordinate = printCoordinate("connection");

/** Whether a coordinate is of a record that is built as a whole. */
export function isBuilt(text: Coordinate): boolean {
  return readCoordinate(text).way === "built";
}

/** Whether a coordinate names an argument. */
export function isArgument(text: Coordinate): boolean {
  return readCoordinate(text).path.endsWith(":)");
}

/** Whether a coordinate is of a key that is read of several types. */
export function isSharedKey(text: Coordinate): boolean {
  const { way } = readCoordinate(text);
  return way === "sharedKey" || way === "sharedKeyToldApart";
}

/** Whether a coordinate names a member of something, or comes from a variable that says its type. */
export function isMemberOrVariable(text: Coordinate): boolean {
  return /[.$]/.test(text);
}

/** Returns the type of a schema that a field, an argument or a value belongs to. */
export function typeOf(text: string): string {
  return text.split(".")[0] ?? text;
}

/** Whether a coordinate names a member of another one. */
export function isInside(text: string, owner: string): boolean {
  return text.startsWith(`${owner}.`);
}

/** Returns what source names, without how it depends on it. A name in an SDK may end with "$". */
export function nameOf(text: Coordinate): string {
  const { path, way } = readCoordinate(text);
  return way === "omitted" || way === "wholeMatch" || way === "built" ? path : text;
}

/** Returns everything that may have the named member: classes may be nested, and a name on the wire may have dots. */
export function ownersOf(text: Coordinate): Coordinate[] {
  const { path, way } = readCoordinate(text);
  const owners = way === "built" ? [path] : [];
  for (let at = path.indexOf("."); at >= 0; at = path.indexOf(".", at + 1))
    owners.push(printCoordinate(path.slice(0, at)));
  return owners;
}
