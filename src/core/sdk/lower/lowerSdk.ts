import type { Reference } from "../../contract/model.js";
import { isStream } from "../../contract/model.js";
import type { GraphqlCall, GraphqlPlan, RestCall, RestPlan, SdkPlan } from "../sdkPlan.js";
import { graphqlCallFiles, ownedTypes, restCallFiles } from "./callFiles.js";
import { Checks } from "./values/check.js";
import { connectionPlan } from "./connectionPlan.js";
import { Conversions } from "./values/conversion.js";
import { graphqlFeatures, restFeatures } from "./features.js";
import { headerReadings } from "./headerReading.js";
import { holdsFiles } from "./values/holdsFiles.js";
import type {
  FakeAnswer,
  GraphqlConversion,
  LoweredCall,
  LoweredGraphql,
  LoweredGraphqlCall,
  LoweredRest,
  LoweredSdk,
} from "./loweredSdk.js";
import { lowerRequest } from "./lowerRequest.js";
import { pageReading, withPages } from "./pageReading.js";
import { nothingRead, readings, type ReadingContext } from "./reading.js";
import { sampleBuilders } from "./values/sampleBuilders.js";
import type { SharedSettings } from "./sharedSettings.js";

/**
 * Plans everything in an SDK that is the same in all languages.
 *
 * @param settings the settings shared by languages
 */
export function lowerSdk({ name, contracts }: SdkPlan, settings: SharedSettings): LoweredSdk {
  const lowered = contracts.map((plan) =>
    plan.protocol === "rest" ? lowerRest(plan, settings) : lowerGraphql(plan, settings),
  );
  return { name, contracts: lowered, settings };
}

function lowerRest(given: RestPlan, settings: SharedSettings): LoweredRest {
  const plan = withPages(given, settings);
  const { types } = plan;
  const conversions = new Conversions(types, settings);
  const checks = settings.verify === "answers" ? new Checks(types, settings) : undefined;
  const context: ReadingContext = { types, conversions, checks };
  const calls = plan.calls.map((call) => lowerCall(call, plan, context));
  return {
    protocol: "rest",
    plan,
    types,
    settings,
    connection: connectionPlan(plan),
    calls,
    files: restCallFiles(calls),
    conversions: conversions.ofTypes(),
    checks: checks?.ofTypes() ?? [],
    builders: settings.testing ? sampleBuilders(types, settings) : [],
    features: restFeatures(plan, settings),
  };
}

function lowerCall(call: RestCall, plan: RestPlan, context: ReadingContext): LoweredCall {
  const { conversions } = context;
  const pages = pageReading(call, plan, conversions.settings);
  const answers = readings(call.answers, context);
  return {
    call,
    label: `${plan.name}.${call.name}`,
    request: lowerRequest(call, plan, conversions),
    answers: answers.length > 0 ? answers : [nothingRead],
    answersByType: call.answerChoices.map(({ mediaType, answers }) => ({
      mediaType,
      answers: readings(answers, context),
    })),
    failures: readings(call.failures, context),
    headers: headerReadings(call.headers, plan.types),
    ...(pages ? { pages } : {}),
    isStream: call.answers.some(({ form }) => isStream(form)),
    fake: fakeAnswer(call, answers),
  };
}

/** The first response with a body, otherwise the first one. */
function fakeAnswer(call: RestCall, answers: LoweredCall["answers"]): FakeAnswer {
  const withBody = call.answers.findIndex(({ type }) => type !== undefined);
  const at = Math.max(0, withBody);
  const chosen = call.answers[at];
  const reading = answers[at];
  if (!chosen || !reading) return { status: 200, reading: nothingRead };
  return {
    status: Number(chosen.status.replace(/XX$/, "00").replace("default", "200")),
    reading,
    ...(chosen.mediaType === undefined || chosen.mediaType.includes("*") ? {} : { mediaType: chosen.mediaType }),
  };
}

function lowerGraphql(plan: GraphqlPlan, settings: SharedSettings): LoweredGraphql {
  const { types } = plan;
  const conversions = new Conversions(types, settings);
  const files = graphqlCallFiles(plan);
  const owners = ownedTypes(plan);
  const isSealed = settings.fragments === "sealed";
  return {
    protocol: "graphql",
    plan,
    types,
    settings,
    calls: plan.calls.map((call): LoweredGraphqlCall => ({
      call,
      label: `${plan.name}.${lowerFirst(call.name)}`,
      file: files.get(call) ?? "call",
      types: [...types.values()].filter((type) => owners.get(type.id) === call),
      // Fields of sealed fragments are decoded too: the app sees them as soon as it unseals them.
      answer: conversionOf(call.whole ?? call.answer, conversions),
      variables: conversionOf(variablesOf(call), conversions),
      hasFiles: holdsFiles(call, types),
      isStream: call.operation.root === "subscription",
    })),
    sealed: new Map(isSealed ? plan.fragments.map(({ fragment, reference }) => [fragment, reference]) : []),
    conversions: conversions.ofTypes(),
    checks: [],
    builders: settings.testing ? sampleBuilders(types, settings) : [],
    features: graphqlFeatures(plan, settings),
  };
}

function lowerFirst(name: string): string {
  return name.charAt(0).toLowerCase() + name.slice(1);
}

function variablesOf(call: GraphqlCall): Reference {
  return { shape: { kind: "record", fields: call.variables }, nullable: false };
}

function conversionOf(reference: Reference, conversions: Conversions): GraphqlConversion {
  const conversion = conversions.of(reference);
  return {
    ...(conversion ? { conversion } : {}),
    isExact: conversion !== undefined && conversions.needsExact(reference),
  };
}
