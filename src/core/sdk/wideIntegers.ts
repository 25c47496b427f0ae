import { eachChild } from "../contract/childReferences.js";
import type { Shape } from "../contract/model.js";
import type { ContractPlan } from "./sdkPlan.js";

/**
 * Returns the places of a contract with 64-bit integers (the format `int64`), by the names of its types and calls:
 * "Berth.length", "listBerths(since)". Integers in a map or a list count for the field that contains it.
 */
export function wideIntegers(plan: ContractPlan): string[] {
  const found = new Set<string>();
  for (const { name, shape } of plan.types.values()) {
    if (shape.kind === "record") {
      for (const field of shape.fields) if (holdsWide(field.type.shape)) found.add(`${name}.${field.name}`);
      if (shape.rest && holdsWide(shape.rest.shape)) found.add(name);
    } else if (holdsWide(shape)) found.add(name);
  }
  if (plan.protocol === "graphql") {
    for (const call of plan.calls)
      for (const { name, type } of call.variables) if (holdsWide(type.shape)) found.add(`${call.name}(${name})`);
    return [...found];
  }
  for (const call of plan.calls) {
    for (const { name, type } of call.arguments) if (holdsWide(type.shape)) found.add(`${call.name}(${name})`);
    for (const { type } of [...call.answers, ...call.failures]) if (type && holdsWide(type.shape)) found.add(call.name);
  }
  return [...found];
}

/** Whether a shape contains such an integer itself, not through the name of a type. */
function holdsWide(shape: Shape): boolean {
  if (shape.kind === "integer") return shape.format === "int64";
  let isFound = false;
  eachChild(shape, (child) => {
    isFound ||= holdsWide(child.shape);
  });
  return isFound;
}
