import type { Reference } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedArgument, PlannedPaging, PlannedType, RestCall, RestPlan } from "../sdkPlan.js";
import { decodedLeaf, type DecodingSettings } from "./values/decodedLeaf.js";

/** One step into a response, with a field's name in JSON. */
export interface PageStep {
  readonly name: string;
  /** Whether the object with the field may be null or absent. */
  readonly mayLack: boolean;
}

/** How all pages of a call are read. */
export interface PageReading {
  readonly paging: PlannedPaging;
  /** The path from a response to its items. */
  readonly items: readonly PageStep[];
  /** By cursor: the path from a response to the next cursor. */
  readonly next: readonly PageStep[];
  /** The argument that selects the page; absent for links. */
  readonly argument?: PlannedArgument;
  /** By number or offset: the first page, unless the app starts at another. */
  readonly first: number;
  /** The app's type for the position of a page: in the argument, and, for cursors, in the response. */
  readonly place: PlaceKind;
  readonly nextPlace: PlaceKind;
  /** By link: the credentials in the query, which no link may set. */
  readonly credentials: readonly string[];
}

/** The app's type for the position of a page. Only strings and numbers are converted to each other. */
export type PlaceKind = "text" | "number" | "bigint" | "instant" | `own ${string}`;

/**
 * Plans how the pages of a call are read.
 *
 * @param settings they decide the types of positions
 * @returns undefined if the call has no pages, or if a position cannot be requested with these settings
 */
export function pageReading(call: RestCall, plan: RestPlan, settings: DecodingSettings): PageReading | undefined {
  const { paging } = call;
  if (!paging) return undefined;
  const answer = call.answers[0]?.type;
  const argument = call.arguments.find(({ name }) => name === paging.argument);
  const next = stepsInto(paging.next ?? [], answer, plan.types);
  const place = argument ? placeKind(argument.type, plan.types, settings) : "text";
  const nextPlace = next.type ? placeKind(next.type, plan.types, settings) : "text";
  const isPlain = (kind: PlaceKind): boolean => ["text", "number", "bigint"].includes(kind);
  const isAsked =
    paging.by === "cursor" ? place === nextPlace || (isPlain(place) && isPlain(nextPlace)) : isPlain(place);
  if (!isAsked) return undefined;
  return {
    paging,
    items: stepsInto(paging.items, answer, plan.types).steps,
    next: next.steps,
    ...(argument ? { argument } : {}),
    first: paging.by === "offset" ? 0 : (paging.first ?? 1),
    place,
    nextPlace,
    credentials: queryCredentials(call, plan),
  };
}

function stepsInto(
  path: readonly string[],
  answer: Reference | undefined,
  types: ReadonlyMap<string, PlannedType>,
): { readonly steps: readonly PageStep[]; readonly type: Reference | undefined } {
  let type = answer;
  let mayLack = answer?.nullable === true;
  const steps = path.map((name) => {
    const step = { name, mayLack };
    const shape = type && resolveShape(type.shape, types);
    const field = shape?.kind === "record" ? shape.fields.find((each) => each.name === name) : undefined;
    type = field?.type;
    mayLack ||= field?.required !== true || field.type.nullable;
    return step;
  });
  return { steps, type };
}

function placeKind({ shape }: Reference, types: RestPlan["types"], settings: DecodingSettings): PlaceKind {
  const inner = resolveShape(shape, types);
  const leaf = decodedLeaf(inner, settings);
  if (leaf?.kind === "integer") return leaf.as;
  if (leaf?.kind === "instant") return "instant";
  if (leaf?.kind === "own") return `own ${leaf.format}`;
  return inner.kind === "text" ? "text" : "number";
}

/** Returns a plan in which only calls whose pages can be read with some settings have pages. */
export function withPages(plan: RestPlan, settings: DecodingSettings): RestPlan {
  const isLeft = (call: RestCall): boolean =>
    call.paging === undefined || pageReading(call, plan, settings) !== undefined;
  if (plan.calls.every(isLeft)) return plan;
  const calls = plan.calls.map((call) => {
    if (isLeft(call)) return call;
    const { paging: _paging, ...others } = call;
    return others;
  });
  return { ...plan, calls };
}

/** The names of a call's credentials in its query. */
function queryCredentials(call: RestCall, plan: RestPlan): string[] {
  return call.operation.auth.flat().flatMap((name) => {
    const scheme = plan.authSchemes.get(name);
    return scheme?.kind === "key" && scheme.in === "query" ? [scheme.name] : [];
  });
}
