import type { Reference } from "../../../src/core/contract/model.js";
import type { Fields, Types } from "../vectors/seenAs.js";
import type { Data } from "../vectors/vectorRow.js";
import { inContractOrder } from "./contractOrder.js";
import { callOf, kindOf } from "./scriptDriver.js";
import type { storyPlans } from "./storyContracts.js";
import type { StoryStep } from "./storyStep.js";

/** The output of a program for a step, as far as languages differ in it. */
export interface ProgramOf {
  readonly seen: (dumped: Data, reference: Reference | undefined, types: Types) => unknown;
  /** The key for several results, in order. */
  readonly several: string;
  /** The SDK's name for the failure of a status. */
  readonly declared: (status: string) => string;
  /** The failure if no declared status was received; undefined if there was another error. */
  readonly mishap: (fails: Fields) => unknown;
}

/** Returns what the program saw in a step, in the form of all languages. */
export function toldOf(
  step: StoryStep,
  said: Fields,
  plans: ReturnType<typeof storyPlans>,
  language: ProgramOf,
): object {
  const plan = step.contract === "berths" ? plans.berths : plans.passages;
  const { answer, item } = callOf(plan, step.call);
  const of = step.isPaged === true ? item : answer;
  const tell = (value: Data): unknown => inContractOrder(language.seen(value, of, plan.types), of, plan.types);
  const items = said[language.several] === true ? (said["gives"] as readonly Data[]).map(tell) : undefined;
  const fails = said["fails"] as Fields | undefined;
  if (!fails) return items ? { items } : { gives: tell(said["gives"] ?? null) };
  const call = plans.berths.calls.find(({ operation }) => operation.operationId === step.call);
  const declared = call?.failures.find(({ status }) => language.declared(status) === fails["class"])?.status;
  const number = declared !== undefined && /^\d+$/.test(declared) ? Number(declared) : declared;
  const status = number ?? language.mishap(fails) ?? fails["message"];
  const path = fails["path"] ?? undefined;
  return {
    ...(items && items.length > 0 ? { items } : {}),
    fails: { kind: kindOf(status), status, ...(path === undefined ? {} : { path }) },
  };
}
