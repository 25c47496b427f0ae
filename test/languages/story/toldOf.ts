import type { Reference } from "../../../src/core/contract/model.js";
import type { Fields, Types } from "../vectors/seenAs.js";
import type { Data } from "../vectors/vectorRow.js";
import { inContractOrder } from "./contractOrder.js";
import { callOf, kindOf } from "./scriptDriver.js";
import type { storyPlans } from "./storyContracts.js";
import type { StoryStep } from "./storyStep.js";

/** What a program in a language writes of a step, as far as languages differ in it. */
export interface ProgramOf {
  readonly seen: (dumped: Data, reference: Reference | undefined, types: Types) => unknown;
  /** The key that says that several things came, one after the other. */
  readonly several: string;
  /** What the SDK calls the failure of a status. */
  readonly declared: (status: string) => string;
  /** What went wrong, where no status was answered that the contract declares; undefined where something else did. */
  readonly mishap: (fails: Fields) => unknown;
}

/** What the program saw in a step, as every language tells it. */
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
