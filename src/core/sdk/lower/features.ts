import { isStream, type MediaForm, type Parameter } from "../../contract/model.js";
import type { GraphqlPlan, RestPlan } from "../sdkPlan.js";
import { holdsFiles } from "./values/holdsFiles.js";
import type { SharedSettings } from "./sharedSettings.js";

/** Parts of a language's runtime that an SDK contains only if it needs them. */
export type Feature =
  /** Calls of a REST contract, and of a GraphQL contract. */
  | "rest"
  | "graphql"
  /** Styles of parameters beyond simple paths and forms. */
  | "rarer parameters"
  | "forms"
  /** The progress of an upload. */
  | "progress"
  | "pages"
  | "streams"
  | "response headers"
  | "cookies"
  /** Servers of single calls, and addresses with variables. */
  | "servers"
  | "conversions"
  | "exact integers"
  | "checks"
  | "outcomes"
  | "fakes"
  /** Calls with a key and a function for caches, and their pages. */
  | "described calls"
  | "described pages"
  | "sockets"
  | "file uploads"
  /** Members of unions that the schema does not have yet. */
  | "newer types"
  /** Requests that the server sends on its own. */
  | "webhooks";

const rareStyles: readonly Parameter["style"][] = [
  "label",
  "matrix",
  "spaceDelimited",
  "pipeDelimited",
  "tabDelimited",
  "deepObject",
  "json",
];

/** Returns the parts of the runtime that a REST contract needs. */
export function restFeatures(plan: RestPlan, settings: SharedSettings): Set<Feature> {
  const found = settingFeatures(settings).add("rest");
  if ((plan.servers[0]?.variables.size ?? 0) > 0) found.add("servers");
  if (settings.verify === "answers") found.add("checks");
  if (plan.sent.length > 0) found.add("webhooks");
  for (const call of plan.calls) {
    if (call.operation.servers.length > 0) found.add("servers");
    if (call.paging) found.add("pages");
    if (call.paging && settings.cached) found.add("described pages");
    if (call.headers.length > 0) found.add("response headers");
    if (call.answers.some(({ form }) => isStream(form))) found.add("streams");
    for (const { source } of call.arguments) {
      if (source.kind === "parameter") addParameter(source.parameter, found);
      else for (const { content } of [source, ...source.others]) addBody(content.form, found);
    }
  }
  return found;
}

/** Returns the parts of the runtime that a GraphQL contract needs. */
export function graphqlFeatures(plan: GraphqlPlan, settings: SharedSettings): Set<Feature> {
  const found = settingFeatures(settings).add("graphql");
  if (settings.unions === "open") found.add("newer types");
  if (plan.calls.some((call) => call.operation.root === "subscription")) found.add("sockets");
  if (plan.calls.some((call) => holdsFiles(call, plan.types))) found.add("file uploads").add("progress");
  return found;
}

function settingFeatures({ dates, int64, ownFormats, failures, testing, cached }: SharedSettings): Set<Feature> {
  const found = new Set<Feature>();
  if (failures === "return") found.add("outcomes");
  if (testing) found.add("fakes");
  if (cached) found.add("described calls");
  if (dates === "decoded" || int64 !== "number" || ownFormats.size > 0) found.add("conversions");
  if (int64 !== "number") found.add("exact integers");
  return found;
}

function addParameter({ style, allowReserved, in: location }: Parameter, found: Set<Feature>): void {
  if (allowReserved || rareStyles.includes(style)) found.add("rarer parameters");
  if (location === "cookie") found.add("cookies");
}

function addBody(form: MediaForm, found: Set<Feature>): void {
  if (form === "urlencoded" || form === "multipart") found.add("forms").add("rarer parameters");
  if (form === "bytes" || form === "multipart") found.add("progress");
  if (isStream(form)) found.add("streams");
}
