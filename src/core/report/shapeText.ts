import { operationLabel, type Contract, type RestOperation } from "../contract/model.js";
import { operationLines, shapeLines } from "../contract/shapeLines.js";
import { typeAt, typeNames } from "./typeAt.js";

/** The changed part on both sides, one line for each of its parts; undefined if it has no parts. */
export interface ShapeSides {
  readonly title: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
}

/**
 * Returns the shape around a change, before and after, in the program's own words, whatever the contracts' format.
 *
 * @param subject the subject of the change: "Berth.note", "GET /berths pageSize"
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
  const title = typeAt(subject, typeNames(before, after));
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

function typeLines(name: string, contract: Contract): string[] {
  const type = [...contract.types.values()].find((each) => each.name === name);
  return type ? shapeLines(type.shape) : [];
}
