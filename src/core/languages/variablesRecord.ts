import type { Field, RecordShape } from "../contract/model.js";

const records = new WeakMap<readonly Field[], RecordShape>();

/**
 * Returns the variables of a GraphQL call as a record. It is the same record each time, because its names are stored by
 * record.
 */
export function variablesRecord(variables: readonly Field[]): RecordShape {
  const known = records.get(variables);
  if (known) return known;
  const made: RecordShape = { kind: "record", fields: variables };
  records.set(variables, made);
  return made;
}
