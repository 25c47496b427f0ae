import type { ErrorObject } from "ajv";
import { faults, rules } from "rhema:structure-validators";
import { pointerTokens } from "../../problem/place.js";
import { kindOf } from "../../problem/kindOf.js";
import type { Data } from "../../text/parseData.js";
import type { StructureKind } from "./structureKinds.js";

/** One thing about an object's structure that is not as its format wants it. */
export interface StructureMisfit {
  /** Keys from the object to the offender. */
  readonly path: readonly string[];
  readonly message: string;
  /** The reader would misunderstand it; else it only breaks a rule. */
  readonly isFault: boolean;
}

const none: readonly StructureMisfit[] = [];

/** Holds the members of one object, not what is below them, against the rules of its kind; faults come first. */
export function checkStructure(kind: StructureKind, value: Data): readonly StructureMisfit[] {
  if (kind === "schema" && isPlainReference(value)) return none;
  const isFaulty = faults[kind];
  const isRegular = rules[kind];
  const found: StructureMisfit[] = [];
  if (isFaulty && !isFaulty(value)) found.push(...misfitsOf(isFaulty.errors ?? [], true));
  if (isRegular && !isRegular(value)) found.push(...misfitsOf(isRegular.errors ?? [], false));
  return found.length === 0 ? none : found;
}

/** The most frequent schema of all; nothing about it can be irregular. */
function isPlainReference(value: Data): boolean {
  for (const key in value) if (key !== "$ref") return false;
  return typeof value["$ref"] === "string";
}

function misfitsOf(errors: readonly ErrorObject[], isFault: boolean): StructureMisfit[] {
  return errors.map((error) => {
    const path = pointerTokens(error.instancePath);
    return { path, message: messageOf(error, path.at(-1)), isFault };
  });
}

function messageOf(error: ErrorObject, key: string | undefined): string {
  const name = key === undefined ? "It" : /^\d+$/.test(key) ? "An item" : `\`${key}\``;
  if (error.keyword === "required") {
    const where = key === undefined ? "" : ` in \`${key}\``;
    return `\`${String(error.params["missingProperty"])}\` is missing${where}.`;
  }
  if (error.keyword === "type")
    return `${name} has to be ${typeWords(error.params["type"])}, and is ${kindOf(error.data)}.`;
  return `${name} ${error.message ?? "is not as the format wants it"}, and is ${kindOf(error.data)}.`;
}

const wordsByType: Readonly<Record<string, string>> = {
  object: "an object",
  array: "a list",
  string: "text",
  number: "a number",
  integer: "a whole number",
  boolean: "true or false",
};

function typeWords(said: unknown): string {
  const types = (Array.isArray(said) ? (said as unknown[]) : [said]).map(String).filter((type) => type !== "null");
  return types.map((type) => wordsByType[type] ?? type).join(" or ");
}
