import type { ErrorObject } from "ajv";
import { faults, plain, rules } from "rhema:structure-validators";
import { pointerTokens } from "../../problem/place.js";
import { kindOf } from "../../problem/kindOf.js";
import type { Data } from "../../text/parseData.js";
import type { StructureKind } from "./structureKinds.js";

/** A violation in an object's structure. */
export interface StructureMisfit {
  /** The keys from the object to the invalid member. */
  readonly path: readonly string[];
  readonly message: string;
  /** Whether the reader would misread it. Otherwise it only breaks a rule. */
  readonly isFault: boolean;
}

const none: readonly StructureMisfit[] = [];

/**
 * Validates the members of one object, without the objects in them, against the rules of its kind.
 *
 * @param value the members
 * @returns the violations, faults first
 */
export function checkStructure(kind: StructureKind, value: Data): readonly StructureMisfit[] {
  if (isPlain(kind, value)) return none;
  const isFaulty = faults[kind];
  const isRegular = rules[kind];
  const found: StructureMisfit[] = [];
  if (isFaulty && !isFaulty(value)) found.push(...misfitsOf(isFaulty.errors ?? [], true));
  if (isRegular && !isRegular(value)) found.push(...misfitsOf(isRegular.errors ?? [], false));
  return found.length === 0 ? none : found;
}

const bitByType: Readonly<Record<string, number>> = {
  string: 1,
  number: 2,
  boolean: 4,
  object: 8,
  array: 16,
  null: 32,
  texts: 64,
  count: 128,
};

interface PlainMembers {
  readonly required: readonly string[];
  /** The types with which a member is valid, as bits; 0 if the rules check more than its type. */
  readonly types: ReadonlyMap<string, number>;
}

const plainByKind = new Map<StructureKind, PlainMembers>(
  Object.entries(plain).map(([kind, { required, types }]) => [
    kind as StructureKind,
    {
      required,
      types: new Map(
        Object.entries(types).map(([key, names]) => [
          key,
          names.reduce((bits, name) => bits | (bitByType[name] ?? 0), 0),
        ]),
      ),
    },
  ]),
);

/** Returns whether one look at the members shows that no rule is broken, which is nearly always so. */
function isPlain(kind: StructureKind, value: Data): boolean {
  const members = plainByKind.get(kind);
  if (!members) return false;
  const { required, types } = members;
  for (const key in value) {
    const allowed = types.get(key);
    if (allowed !== undefined && (allowed & typeBits(value[key])) === 0) return false;
  }
  for (const key of required) if (!Object.hasOwn(value, key)) return false;
  return true;
}

function typeBits(value: unknown): number {
  switch (typeof value) {
    case "string":
      return 1;
    case "number":
      return Number.isInteger(value) && value >= 0 ? 2 | 128 : 2;
    case "boolean":
      return 4;
    default:
      if (value === null) return 32;
      if (!Array.isArray(value)) return 8;
      return (value as unknown[]).every((each) => typeof each === "string") ? 16 | 64 : 16;
  }
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
    return `${name} must be ${typeWords(error.params["type"])}, but is ${kindOf(error.data)}.`;
  return `${name} ${error.message ?? "does not match the format"}, but is ${kindOf(error.data)}.`;
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
  return types.map((type) => (Object.hasOwn(wordsByType, type) ? wordsByType[type] : type)).join(" or ");
}
