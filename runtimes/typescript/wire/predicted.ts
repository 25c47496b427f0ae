import type { GraphqlOperation } from "./graphql.js";
import type { Sealed } from "./sealed.js";

type Merged<Union> = (Union extends unknown ? (value: Union) => void : never) extends (value: infer All) => void
  ? All
  : never;

/** An answer with everything in it that seals hide, as somebody has to write it who builds one. */
export type Whole<Value> =
  Value extends Sealed<infer Parts>
    ? { [Name in keyof Value as Name extends string ? Name : never]: Whole<Value[Name]> } & Merged<
        Whole<NonNullable<Parts[keyof Parts]>>
      >
    : Value extends Date | Blob | ((...given: never) => unknown)
      ? Value
      : Value extends object
        ? { [Name in keyof Value]: Whole<Value[Name]> }
        : Value;

/**
 * The answer that an app expects of an operation before it is there, checked field by field: nothing may be missing or
 * too much. For screens that show a change at once.
 */
export function predicted<Answer, Variables>(
  _operation: GraphqlOperation<Answer, Variables>,
  answer: Whole<Answer>,
): Answer {
  return answer as Answer;
}
