import type { PlannedResponse } from "../sdk/sdkPlan.js";

/** The type of a call's response in source. */
export interface AnswerShape {
  /** "several" if its successes have no type in common and are distinguished. */
  readonly kind: "one" | "several";
  readonly type: string;
  /** Whether some successes have a body and others have none. */
  readonly isOptional: boolean;
  readonly responses: readonly PlannedResponse[];
}

/** How a language spells responses. Types that end with "?" can be null. */
export interface AnswerSpelling {
  /** The type of a response without a body. */
  readonly nothing: string;
  /** The type that distinguishes successes without a common type. */
  readonly several: string;
}

/**
 * Returns the type of a call's response.
 *
 * @param responses the declared successes
 * @param types the types of their bodies, in the same order; undefined for no body
 */
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
