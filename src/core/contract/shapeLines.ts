import { shapeWords } from "./shapeWords.js";
import { operationLabel, type Field, type Reference, type RestOperation, type Shape } from "./model.js";

/**
 * Returns the parts of an operation, one line each: parameters, body and responses.
 *
 * @param operation undefined gives no lines
 */
export function operationLines(operation: RestOperation | undefined): string[] {
  if (!operation) return [];
  const { parameters, body, responses } = operation;
  return [
    ...(operation.operationId === undefined ? [] : [`called ${operation.operationId}`]),
    operationLabel(operation),
    ...parameters.map((each) => `${each.in} ${fieldLine(each)}`),
    ...(body
      ? [
          `body${body.required ? "" : "?"}: ${body.contents.map((each) => `${each.mediaType} ${typeText(each.type)}`).join(", ")}`,
        ]
      : []),
    ...responses.map(
      (each) =>
        `${each.status}: ${each.contents.map((content) => `${content.mediaType} ${typeText(content.type)}`).join(", ") || "no body"}`,
    ),
  ];
}

/**
 * Returns the parts of a shape, one line each: fields, values or members.
 *
 * @param shape a shape that is not a name
 */
export function shapeLines(shape: Shape): string[] {
  switch (shape.kind) {
    case "record":
      return [...shape.fields.map(fieldLine), ...(shape.rest ? [`other fields: ${typeText(shape.rest)}`] : [])];
    case "choice":
      return shape.values.map(({ value }) => String(value));
    case "union":
      return shape.members.map((member) => `or ${typeText(member)}`);
    default:
      return [shapeWords(shape)];
  }
}

/** Returns a field as "name?: type, default 5". */
export function fieldLine(field: Field): string {
  const face = field.face === "answer" ? ", in responses only" : field.face === "request" ? ", in requests only" : "";
  const fallback = field.default === undefined ? "" : `, ${JSON.stringify(field.default)} when absent`;
  return `${field.name}${field.required ? "" : "?"}: ${typeText(field.type)}${face}${fallback}`;
}

/** Returns a type in a few words, with its limits. */
export function typeText({ shape, nullable }: Reference): string {
  return `${shapeWords(shape)}${limitText(shape)}${nullable ? " or null" : ""}`;
}

function limitText(shape: Shape): string {
  const limits = Object.entries(("constraints" in shape ? shape.constraints : undefined) ?? {});
  return limits.length === 0 ? "" : ` (${limits.map(([name, value]) => `${name} ${String(value)}`).join(", ")})`;
}
