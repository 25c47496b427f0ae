import { shapeWords } from "../change/shapeWords.js";
import {
  operationLabel,
  type Contract,
  type Field,
  type Reference,
  type RestOperation,
  type Shape,
} from "../contract/model.js";

/** What a change is about, on both sides, a part a line; undefined where it is about nothing that has parts. */
export interface ShapeSides {
  readonly title: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
}

/**
 * The shape that a change stands in, before and after, in the program's own words whatever the contracts are written
 * in.
 *
 * @param subject what the change calls itself: "Berth.note", "GET /berths pageSize"
 */
export function shapeSides(subject: string, before: Contract, after: Contract): ShapeSides | undefined {
  const operation = operationOf(subject, before) ?? operationOf(subject, after);
  if (operation !== undefined) {
    const moved = operationOf(subject, before);
    const id = moved === undefined ? undefined : find(before, moved)?.operationId;
    return {
      title: operation,
      before: operationLines(find(before, operation)),
      after: operationLines(find(after, operation) ?? byId(after, id)),
    };
  }
  const [title = ""] = subject.split(/[.[( ]/);
  const left = typeLines(title, before);
  const right = typeLines(title, after);
  return left.length + right.length === 0 ? undefined : { title, before: left, after: right };
}

function operationOf(subject: string, contract: Contract): string | undefined {
  if (contract.protocol !== "rest") return undefined;
  const labels = contract.operations
    .map(operationLabel)
    .filter((label) => subject === label || subject.startsWith(`${label} `));
  return labels.sort((a, b) => b.length - a.length)[0];
}

function find(contract: Contract, label: string): RestOperation | undefined {
  return contract.protocol === "rest" ? contract.operations.find((each) => operationLabel(each) === label) : undefined;
}

function byId(contract: Contract, id: string | undefined): RestOperation | undefined {
  return contract.protocol === "rest" && id !== undefined
    ? contract.operations.find((each) => each.operationId === id)
    : undefined;
}

function operationLines(operation: RestOperation | undefined): string[] {
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

function typeLines(name: string, contract: Contract): string[] {
  const type = [...contract.types.values()].find((each) => each.name === name);
  return type ? shapeLines(type.shape) : [];
}

function shapeLines(shape: Shape): string[] {
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

function fieldLine(field: Field): string {
  const face = field.face === "answer" ? ", only answered" : field.face === "request" ? ", only sent" : "";
  const fallback = field.default === undefined ? "" : `, ${JSON.stringify(field.default)} when absent`;
  return `${field.name}${field.required ? "" : "?"}: ${typeText(field.type)}${face}${fallback}`;
}

function typeText({ shape, nullable }: Reference): string {
  return `${shapeWords(shape)}${limitText(shape)}${nullable ? " or null" : ""}`;
}

function limitText(shape: Shape): string {
  const limits = Object.entries(("constraints" in shape ? shape.constraints : undefined) ?? {});
  return limits.length === 0 ? "" : ` (${limits.map(([name, value]) => `${name} ${String(value)}`).join(", ")})`;
}
