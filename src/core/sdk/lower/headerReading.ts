import type { ChoiceValue, Shape } from "../../contract/model.js";
import { resolveShape } from "../../contract/resolveShape.js";
import type { PlannedHeader, PlannedType } from "../sdkPlan.js";

/** How a response header is read. */
export interface HeaderReading {
  readonly header: PlannedHeader;
  /** Whether its value is a list. */
  readonly isList: boolean;
  readonly as: "number" | "boolean" | "text" | "oneOf";
  /** The valid values, for "oneOf". */
  readonly values: readonly ChoiceValue[];
}

/** Returns how the headers of a call are read. They are never decoded, but read as they are sent. */
export function headerReadings(
  headers: readonly PlannedHeader[],
  types: ReadonlyMap<string, PlannedType>,
): HeaderReading[] {
  return headers.map((header) => {
    const shape = resolveShape(header.field.type.shape, types);
    const isList = shape.kind === "list";
    return { header, isList, ...itemReading(isList ? resolveShape(shape.item.shape, types) : shape) };
  });
}

function itemReading(shape: Shape): Pick<HeaderReading, "as" | "values"> {
  if (shape.kind === "integer" || shape.kind === "number") return { as: "number", values: [] };
  if (shape.kind === "boolean") return { as: "boolean", values: [] };
  const values =
    shape.kind === "literal" ? [shape.value] : shape.kind === "choice" ? shape.values.map(({ value }) => value) : [];
  return { as: values.length === 0 ? "text" : "oneOf", values };
}
