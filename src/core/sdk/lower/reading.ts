import type { Reference, Shape } from "../../contract/model.js";
import { isStream } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedResponse, PlannedType } from "../sdkPlan.js";
import type { Check, Checks } from "./values/check.js";
import type { Conversion, Conversions } from "./values/conversion.js";

/**
 * How the body of a response or failure is read. Of events, the data is read as JSON or as text, or the events
 * themselves.
 */
export type ReadAs =
  "none" | "json" | "text" | "bytes" | "lines" | "sequence" | "events" | "eventTexts" | "eventRecords";

/** How the body of one status is read. */
export interface StatusReading {
  /** "200", "4XX" or "default". */
  readonly status: string;
  readonly as: ReadAs;
  readonly conversion?: Conversion;
  /** Whether its integers need all their digits. */
  readonly isExact: boolean;
  /** The check before it is used. */
  readonly check?: Check;
}

/** The facts that decide how responses are read. */
export interface ReadingContext {
  readonly types: ReadonlyMap<string, PlannedType>;
  readonly conversions: Conversions;
  /** Only if responses are verified. */
  readonly checks: Checks | undefined;
}

/** Returns how each of some responses is read. */
export function readings(responses: readonly PlannedResponse[], context: ReadingContext): StatusReading[] {
  return responses.map((response) => readingOf(response, context));
}

/** A call without a declared response reads none. */
export const nothingRead: StatusReading = { status: "2XX", as: "none", isExact: false };

function readingOf({ status, form, type }: PlannedResponse, context: ReadingContext): StatusReading {
  const as = readAs(form, type, context.types);
  if (!type || form === "bytes") return { status, as, isExact: false };
  const conversion = context.conversions.of(type);
  const isWhole = as === "eventTexts" || as === "eventRecords";
  const check = (form === "json" || isStream(form)) && !isWhole ? context.checks?.of(type) : undefined;
  return {
    status,
    as,
    ...(conversion ? { conversion } : {}),
    isExact: conversion !== undefined && context.conversions.needsExact(type),
    ...(check ? { check } : {}),
  };
}

function readAs(
  form: PlannedResponse["form"],
  type: Reference | undefined,
  types: ReadonlyMap<string, PlannedType>,
): ReadAs {
  if (form === "events" && type) return eventsAs(resolveShape(type.shape, types), types);
  if (form === "urlencoded") return "text";
  return form === "multipart" ? "bytes" : form;
}

/** The part of an event that is the item: its data as JSON, its data as text, or the event itself. */
function eventsAs(item: Shape, types: ReadonlyMap<string, PlannedType>): ReadAs {
  if (item.kind === "text") return "eventTexts";
  const data = item.kind === "record" ? item.fields.find(({ name }) => name === "data") : undefined;
  return data && resolveShape(data.type.shape, types).kind === "text" ? "eventRecords" : "events";
}
