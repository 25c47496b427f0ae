import type { Reference } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedArgument, PlannedPaging, PlannedType, RestCall, RestPlan } from "../sdkPlan.js";
import { decodedLeaf, type DecodingSettings } from "./decodedLeaf.js";

/** One step into an answer, by a field's name on the wire. */
export interface PageStep {
  readonly name: string;
  /** What it is looked for in may be null or absent. */
  readonly mayLack: boolean;
}

/** How all pages of a call are gone through. */
export interface PageReading {
  readonly paging: PlannedPaging;
  /** From an answer to its items. */
  readonly items: readonly PageStep[];
  /** By cursor: from an answer to the next cursor. */
  readonly next: readonly PageStep[];
  /** The argument that says which page; absent for links. */
  readonly argument?: PlannedArgument;
  /** By number or offset: the first page, unless the app begins at another. */
  readonly first: number;
  /** What the settings make of the argument where it is a 64-bit integer; pages are counted in plain numbers. */
  readonly counted?: "bigint" | "text";
  /** By link: what of the query is a credential, which no link may set. */
  readonly credentials: readonly string[];
}

/** Decides how the pages of a call are gone through; undefined when it answers everything at once. */
export function pageReading(call: RestCall, plan: RestPlan, settings: DecodingSettings): PageReading | undefined {
  const { paging } = call;
  if (!paging) return undefined;
  const answer = call.answers[0]?.type;
  const argument = call.arguments.find(({ name }) => name === paging.argument);
  const leaf = argument && decodedLeaf(resolveShape(argument.type.shape, plan.types), settings);
  return {
    paging,
    items: stepsInto(paging.items, answer, plan.types),
    next: stepsInto(paging.next ?? [], answer, plan.types),
    ...(argument ? { argument } : {}),
    first: paging.by === "offset" ? 0 : (paging.first ?? 1),
    ...(leaf?.kind === "integer" ? { counted: leaf.as } : {}),
    credentials: queryCredentials(call, plan),
  };
}

function stepsInto(
  path: readonly string[],
  answer: Reference | undefined,
  types: ReadonlyMap<string, PlannedType>,
): PageStep[] {
  let type = answer;
  let mayLack = answer?.nullable === true;
  return path.map((name) => {
    const step = { name, mayLack };
    const shape = type && resolveShape(type.shape, types);
    const field = shape?.kind === "record" ? shape.fields.find((each) => each.name === name) : undefined;
    type = field?.type;
    mayLack ||= field?.required !== true || field.type.nullable;
    return step;
  });
}

/** Names under which credentials of a call stand in its query. */
function queryCredentials(call: RestCall, plan: RestPlan): string[] {
  return call.operation.auth.flat().flatMap((name) => {
    const scheme = plan.authSchemes.get(name);
    return scheme?.kind === "key" && scheme.in === "query" ? [scheme.name] : [];
  });
}
