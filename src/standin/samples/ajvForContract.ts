import { Ajv2020, type ValidateFunction } from "ajv/dist/2020.js";
import { pointerToken, pointerTokens, type PointerPlace } from "../../core/problem/place.js";
import { pointerInLinked } from "../../core/rest/linkDocuments.js";
import { isData } from "../../core/text/parseData.js";
import { patternEngine } from "./limitedExpression.js";
import { addFormats } from "./addFormats.js";
import { addLazyReferences, withLazyReferences } from "./lazyReferences.js";

const contractId = "contract.json";

/** Validates values against schemas at their place in the raw contract, by JSON pointer. */
export interface ContractValidator {
  /**
   * Returns messages for the errors of a value, an empty list if it is valid. Text is coerced if the value comes from a
   * URL or header.
   */
  readonly check: (schema: PointerPlace, value: unknown, coerce: boolean) => readonly string[];
}

/**
 * Creates a validator from the parsed contract. Schemas are compiled when they are first needed.
 *
 * @param raw the parsed contract document
 * @param dialect the version of the format
 * @param direction whether values are sent or received
 */
export function contractValidator(raw: unknown, dialect: string, direction: "request" | "answer"): ContractValidator {
  const document = withLazyReferences(inDirection(/^(2|3\.0)/.test(dialect) ? toJsonSchema(raw) : raw, direction));
  const options = {
    strict: false,
    ownProperties: true,
    allErrors: true,
    validateSchema: false,
    logger: false,
    code: { regExp: patternEngine },
  } as const;
  const exact = new Ajv2020(options);
  const coercing = new Ajv2020({ ...options, coerceTypes: "array" });
  for (const ajv of [exact, coercing]) {
    addFormats(ajv);
    for (const format of ["int32", "int64", "float", "double", "binary", "byte", "password"])
      ajv.addFormat(format, true);
    addLazyReferences(ajv, contractId);
    ajv.addSchema(document as object, contractId);
  }
  const compiled = new Map<string, ValidateFunction | undefined>();
  const validatorAt = (pointer: string, coerce: boolean): ValidateFunction | undefined => {
    const key = `${String(coerce)} ${pointer}`;
    if (!compiled.has(key)) compiled.set(key, compile(coerce ? coercing : exact, movedPointer(pointer, document)));
    return compiled.get(key);
  };
  // A place builds its pointer each time, and every request needs the same few.
  const atPlace = { exact: new WeakMap<PointerPlace, Found>(), coercing: new WeakMap<PointerPlace, Found>() };
  const validatorOf = (schema: PointerPlace, coerce: boolean): ValidateFunction | undefined => {
    const known = atPlace[coerce ? "coercing" : "exact"];
    const found = known.get(schema) ?? { validate: validatorAt(pointerInLinked(schema, raw), coerce) };
    known.set(schema, found);
    return found.validate;
  };
  return {
    check: (schema, value, coerce) => {
      const validate = validatorOf(schema, coerce);
      const holder = { value };
      if (!validate || isValid(validate, coerce ? holder : value)) return [];
      return (validate.errors ?? []).map((error) => {
        const path = coerce ? error.instancePath.replace(/^\/value/, "") : error.instancePath;
        const extra =
          error.keyword === "additionalProperties"
            ? ` (${String(error.params["additionalProperty"])})`
            : error.keyword === "enum"
              ? `: ${(error.params["allowedValues"] as unknown[]).join(", ")}`
              : "";
        return `${path === "" ? "" : `${path} `}${error.message ?? "does not match"}${extra}`;
      });
    },
  };
}

interface Found {
  readonly validate: ValidateFunction | undefined;
}

function isValid(validate: ValidateFunction, value: unknown): boolean {
  try {
    return validate(value);
  } catch (error) {
    // A schema that contains itself without end refuses nothing. Neither does one whose types are nested too deeply to
    // be compiled.
    if (
      error instanceof RangeError ||
      (error instanceof TypeError && error.message.includes(".validate is not a function"))
    )
      return true;
    throw error;
  }
}

/**
 * The contract without required fields of the other direction (JSON Schema validation, section 9.4: `readOnly` and
 * `writeOnly`).
 */
function inDirection(node: unknown, direction: "request" | "answer"): unknown {
  if (Array.isArray(node)) return node.map((each) => inDirection(each, direction));
  if (!isData(node)) return node;
  const copy: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(node))
    Object.defineProperty(copy, key, {
      value: inDirection(value, direction),
      enumerable: true,
      writable: true,
      configurable: true,
    });
  const { required, properties } = copy;
  // Properties without a type would allow everything that is not an object, which nobody means.
  if (isData(properties) && copy["type"] === undefined && isSchemaOfFields(copy)) copy["type"] = "object";
  if (Array.isArray(required) && isData(properties)) {
    const against = direction === "request" ? "readOnly" : "writeOnly";
    const isOther = (name: unknown): boolean => {
      const field = typeof name === "string" && Object.hasOwn(properties, name) ? properties[name] : undefined;
      const own = isData(field) && field[wrapped] === true ? (field["anyOf"] as unknown[])[0] : field;
      return isData(own) && own[against] === true;
    };
    copy["required"] = required.filter((name) => !isOther(name));
  }
  return copy;
}

/** Whether `properties` is a keyword here, and not a field with that name. */
function isSchemaOfFields({ properties }: Readonly<Record<string, unknown>>): boolean {
  return isData(properties) && Object.values(properties).every((each) => isData(each) || typeof each === "boolean");
}

function compile(ajv: Ajv2020, pointer: string): ValidateFunction | undefined {
  const schema = { $ref: `${contractId}#${encodeURI(pointer)}` };
  try {
    return ajv.compile(ajv.opts.coerceTypes === "array" ? { type: "object", properties: { value: schema } } : schema);
  } catch {
    // An invalid schema cannot refuse anything. `generate` reports what is wrong with it.
    return undefined;
  }
}

/** Keywords of OpenAPI 3.0 and 2.0 as JSON Schema: `nullable`, and bounds made exclusive by a boolean. */
function toJsonSchema(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(toJsonSchema);
  if (!isData(node)) return node;
  const copy = Object.fromEntries(Object.entries(node).map(([key, value]) => [key, toJsonSchema(value)]));
  for (const [flag, bound] of [
    ["exclusiveMinimum", "minimum"],
    ["exclusiveMaximum", "maximum"],
  ] as const) {
    if (typeof copy[flag] !== "boolean") continue;
    if (copy[flag]) {
      copy[flag] = copy[bound];
      Reflect.deleteProperty(copy, bound);
    } else Reflect.deleteProperty(copy, flag);
  }
  // A 2.0 parameter has a boolean here, and a schema has a list of names.
  if (typeof copy["required"] === "boolean") Reflect.deleteProperty(copy, "required");
  if (copy["type"] === "file") Reflect.deleteProperty(copy, "type");
  if (copy["nullable"] !== true && copy["x-nullable"] !== true) return copy;
  Reflect.deleteProperty(copy, "nullable");
  return { anyOf: [copy, { type: "null" }], [wrapped]: true };
}

/** Marks a schema that was moved one level deeper, next to null. */
const wrapped = "x-rhema-wrapped";

/** The place of a contract's schema in the converted document. */
function movedPointer(pointer: string, document: unknown): string {
  let node = document;
  let moved = "";
  for (const token of pointerTokens(pointer)) {
    if (isData(node) && node[wrapped] === true) {
      node = (node["anyOf"] as unknown[])[0];
      moved += "/anyOf/0";
    }
    node = Array.isArray(node) ? (node as unknown[])[Number(token)] : isData(node) ? node[token] : undefined;
    moved += `/${pointerToken(token)}`;
  }
  return moved;
}
