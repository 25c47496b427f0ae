import { isStream, type Parameter } from "../../contract/model.js";
import type { GraphqlPlan, RestCall, RestPlan } from "../sdkPlan.js";
import { holdsFiles } from "./holdsFiles.js";
import type { SharedSettings } from "./sharedSettings.js";

/** Parts of a language's runtime that an SDK has only where it needs them. */
export type Feature =
  /** Calls of a REST contract, and of a GraphQL one. */
  | "rest"
  | "graphql"
  /** Styles of parameters beyond simple paths and forms. */
  | "rarer parameters"
  | "forms"
  /** How far an upload is. */
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
  | "sockets"
  | "file uploads"
  /** Members of unions that the schema does not have yet. */
  | "newer types";

const rareStyles: readonly Parameter["style"][] = [
  "label",
  "matrix",
  "spaceDelimited",
  "pipeDelimited",
  "tabDelimited",
  "deepObject",
  "json",
];

/** What a REST contract's part of an SDK needs of the runtime. */
export function restFeatures(plan: RestPlan, settings: SharedSettings): Set<Feature> {
  const hasServers =
    plan.calls.some((call) => call.operation.servers.length > 0) || (plan.servers[0]?.variables.size ?? 0) > 0;
  return new Set<Feature>([
    "rest",
    ...(hasServers ? (["servers"] as const) : []),
    ...(settings.verify === "answers" ? (["checks"] as const) : []),
    ...settingFeatures(settings),
    ...plan.calls.flatMap(callFeatures),
  ]);
}

/** What a GraphQL contract's part of an SDK needs of the runtime. */
export function graphqlFeatures(plan: GraphqlPlan, settings: SharedSettings): Set<Feature> {
  return new Set<Feature>([
    "graphql",
    ...settingFeatures(settings),
    ...(plan.calls.some((call) => call.operation.root === "subscription") ? (["sockets"] as const) : []),
    ...(plan.calls.some((call) => holdsFiles(call, plan.types)) ? (["file uploads", "progress"] as const) : []),
    ...(settings.unions === "open" ? (["newer types"] as const) : []),
  ]);
}

function settingFeatures({ dates, int64, ownFormats, failures, testing }: SharedSettings): Feature[] {
  const isDecoded = dates === "decoded" || int64 !== "number" || ownFormats.size > 0;
  return [
    ...(failures === "return" ? (["outcomes"] as const) : []),
    ...(testing ? (["fakes"] as const) : []),
    ...(isDecoded ? (["conversions"] as const) : []),
    ...(int64 === "number" ? [] : (["exact integers"] as const)),
  ];
}

function callFeatures(call: RestCall): Feature[] {
  const parameters = call.arguments.flatMap(({ source }) => (source.kind === "parameter" ? [source.parameter] : []));
  const forms = call.arguments.flatMap(({ source }) =>
    source.kind === "body" ? [source.content.form, ...source.others.map(({ content }) => content.form)] : [],
  );
  const isForm = forms.some((form) => form === "urlencoded" || form === "multipart");
  const isRare = parameters.some(({ style, allowReserved }) => rareStyles.includes(style) || allowReserved);
  const streams = call.answers.some(({ form }) => isStream(form)) || forms.some(isStream);
  return [
    ...(isRare || isForm ? (["rarer parameters"] as const) : []),
    ...(isForm ? (["forms"] as const) : []),
    ...(forms.some((form) => form === "bytes" || form === "multipart") ? (["progress"] as const) : []),
    ...(call.paging ? (["pages"] as const) : []),
    ...(streams ? (["streams"] as const) : []),
    ...(call.headers.length > 0 ? (["response headers"] as const) : []),
    ...(parameters.some((parameter) => parameter.in === "cookie") ? (["cookies"] as const) : []),
  ];
}
