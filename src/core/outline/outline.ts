import type { Place } from "../problem/place.js";
import type { Advice } from "./advice.js";

/** What is known about the use of a part of a contract. */
export type OutlineUse = "used" | "not used" | "cannot tell";

/** Finds where a project uses something; undefined when that cannot be told. */
export type UsesOf = (coordinate: string) => readonly Place[] | undefined;

/** One operation, or one root field of a schema. */
export interface OutlineEntry {
  /** "GET /berths", or "Query.voyages". */
  readonly label: string;
  /** What the SDK calls it; a root field with its arguments and type. */
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
  /** "a record of 5 fields", "a choice of 3 values". */
  readonly what: string;
  readonly summary: string | undefined;
  readonly use: OutlineUse;
}

/** What a contract offers, and which of it a project uses. */
export interface Outline {
  readonly contract: string;
  readonly protocol: "rest" | "graphql";
  readonly title: string;
  readonly version: string;
  readonly groups: readonly OutlineGroup[];
  readonly types: readonly OutlineType[];
  readonly advice: readonly Advice[];
}

/** Code that performs an operation, in a language. */
export interface Sample {
  /** As people write it. */
  readonly language: string;
  readonly code: string;
}

/** One operation or type in full. */
export interface OutlineDetail {
  readonly title: string;
  readonly description: string | undefined;
  /** Code that performs it, in each language that it is called in. */
  readonly samples: readonly Sample[];
  /** A part a line: parameters and answers, or fields. */
  readonly lines: readonly string[];
  readonly use: OutlineUse;
  readonly places: readonly Place[];
  /** The operations that reach it, where it is a type. */
  readonly reachedBy: readonly string[];
  /** Every type it reaches, the nearest first. */
  readonly reaches: readonly { readonly title: string; readonly lines: readonly string[] }[];
}

/** The use that found places stand for. */
export function useOf(places: readonly Place[] | undefined): OutlineUse {
  return places === undefined ? "cannot tell" : places.length > 0 ? "used" : "not used";
}

/**
 * The part of an outline that somebody looks for.
 *
 * @param text found in names, labels and summaries, whatever its case; "" finds all
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
