import type { GraphqlOperation } from "./graphql.js";

/**
 * The answer that an app expects of an operation before it is there, checked field by field: nothing may be missing or
 * too much. For screens that show a change at once.
 *
 * @param answer with everything in it, also what fragments seal
 */
export function predicted<Answer, Variables, Whole>(
  _operation: GraphqlOperation<Answer, Variables, Whole>,
  answer: Whole,
): Answer {
  // A seal is known to the compiler only.
  return answer as unknown as Answer;
}
