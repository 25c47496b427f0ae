import type { GraphqlOperation } from "./graphql.js";

/**
 * The expected response of an operation, checked field by field: no field may be missing or unknown. Use it for screens
 * that show a change at once.
 *
 * @param answer the whole response, with the fields of all fragments
 */
export function predicted<Answer, Variables, Whole>(
  _operation: GraphqlOperation<Answer, Variables, Whole>,
  answer: Whole,
): Answer {
  // Only the compiler knows sealed fragments.
  return answer as unknown as Answer;
}
