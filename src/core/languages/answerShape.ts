import type { PlannedResponse } from "../sdk/sdkPlan.js";

/** What a call answers in source. */
export interface AnswerShape {
  /** "several" when its successes have no type in common: then each is told apart. */
  readonly kind: "one" | "several";
  readonly type: string;
  /** Some successes have a body, and some have none. */
  readonly isOptional: boolean;
  readonly responses: readonly PlannedResponse[];
}

/** How a language spells answers: types that end with "?" hold null. */
export interface AnswerSpelling {
  /** The type of an answer without a body. */
  readonly nothing: string;
  /** The type that tells successes apart which have no type in common. */
  readonly several: string;
}

/** @param types of the bodies, in the order of the responses; undefined where there is none */
export function answerShapeOf(
  responses: readonly PlannedResponse[],
  types: readonly (string | undefined)[],
  { nothing, several }: AnswerSpelling,
): AnswerShape {
  const known = new Set(types.filter((type) => type !== undefined));
  const isOptional = types.includes(undefined);
  const [only] = known;
  if (only === undefined) return { kind: "one", type: nothing, isOptional: false, responses };
  const plain = new Set([...known].map((type) => type.replace(/\?$/, "")));
  if (plain.size > 1) return { kind: "several", type: several, isOptional, responses };
  const isNullable = isOptional || [...known].some((type) => type.endsWith("?"));
  return { kind: "one", type: isNullable ? `${only.replace(/\?$/, "")}?` : only, isOptional, responses };
}
