import type { Place } from "../problem/place.js";
import type { Advice } from "./advice.js";

/** Whether a part of a contract is used. */
export type OutlineUse = "used" | "not used" | "cannot tell";

/** Finds the places where a project uses something; undefined if that is unknown. */
export type UsesOf = (coordinate: string) => readonly Place[] | undefined;

/** One operation, or one root field of a schema. */
export interface OutlineEntry {
  /** "GET /berths", or "Query.voyages". */
  readonly label: string;
  /** Its name in the SDK; for a root field, with its arguments and type. */
  readonly name: string;
  readonly summary: string | undefined;
  readonly deprecated: string | undefined;
  readonly use: OutlineUse;
  readonly places: readonly Place[];
}

export interface OutlineGroup {
  readonly name: string;
  readonly summary: string | undefined;
  readonly entries: readonly OutlineEntry[];
}

export interface OutlineType {
  readonly name: string;
  /** "an object of 5 fields", "an enum of 3 values". */
  readonly what: string;
  readonly summary: string | undefined;
  readonly use: OutlineUse;
}

/** The parts of a contract, and which of them a project uses. */
export interface Outline {
  readonly contract: string;
  readonly protocol: "rest" | "graphql";
  readonly title: string;
  readonly version: string;
  readonly groups: readonly OutlineGroup[];
  readonly types: readonly OutlineType[];
  readonly advice: readonly Advice[];
}

/** Code that makes a call, in one language. */
export interface Sample {
  /** The name of the language. */
  readonly language: string;
  readonly code: string;
}

/** One operation or type with all details. */
export interface OutlineDetail {
  readonly title: string;
  readonly description: string | undefined;
  /** Code that calls it, in each language. */
  readonly samples: readonly Sample[];
  /** Its parts, one line each: parameters and responses, or fields. */
  readonly lines: readonly string[];
  readonly use: OutlineUse;
  readonly places: readonly Place[];
  /** For a type, the operations that use it. */
  readonly reachedBy: readonly string[];
  /** Every type that it uses, the closest first. */
  readonly reaches: readonly { readonly title: string; readonly lines: readonly string[] }[];
}

/**
 * Returns the use that found places stand for.
 *
 * @param places undefined if it is unknown
 */
export function useOf(places: readonly Place[] | undefined): OutlineUse {
  return places === undefined ? "cannot tell" : places.length > 0 ? "used" : "not used";
}

/**
 * Returns the part of an outline that matches a search.
 *
 * @param text found in names, labels and summaries, in any case; "" finds all
 * @param isUnused keep only what the project does not use
 */
export function narrowed(outline: Outline, text: string, isUnused: boolean): Outline {
  const wanted = text.toLowerCase();
  const holds = (...parts: readonly (string | undefined)[]): boolean =>
    parts.some((part) => part?.toLowerCase().includes(wanted) === true);
  const isKept = (use: OutlineUse): boolean => !isUnused || use === "not used";
  const groups = outline.groups.map((group) => ({
    ...group,
    entries: group.entries.filter(
      ({ label, name, summary, use }) => isKept(use) && holds(label, name, summary, group.name),
    ),
  }));
  return {
    ...outline,
    groups: groups.filter(({ entries }) => entries.length > 0),
    types: outline.types.filter(({ name, summary, use }) => isKept(use) && holds(name, summary)),
  };
}
