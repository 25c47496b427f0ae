import { Ajv2020, type ErrorObject, type ValidateFunction } from "ajv/dist/2020.js";
import type { Json, Version } from "./makeSchema.js";

export type Verdict = "fits" | "does not fit" | "cannot tell";

/** Decides whether the raw contract allows values. The program's own model is not used. */
export class Judge {
  private readonly ajv = new Ajv2020({
    strict: false,
    allErrors: true,
    verbose: true,
    ownProperties: true,
    validateFormats: false,
    validateSchema: false,
  });
  private readonly compiled = new Map<string, ValidateFunction>();

  constructor(
    document: Json,
    version: Version,
    private readonly direction: "answer" | "request",
  ) {
    this.ajv.addSchema(asJsonSchema(document, version, direction) as object, "contract");
  }

  /**
   * "Cannot tell" is a value that only rules beyond types refuse (lengths, patterns, `not`, two alternatives at once).
   *
   * @param pointer the place of the schema
   */
  judge(pointer: string, value: unknown): Verdict {
    const validate = this.compiled.get(pointer) ?? this.ajv.compile({ $ref: `contract#${encodeURI(pointer)}` });
    this.compiled.set(pointer, validate);
    try {
      if (validate(value)) return "fits";
    } catch (error) {
      // A schema that refers to itself without end, or a value with a `toString` of its own: Ajv cannot handle these.
      if (error instanceof RangeError || error instanceof TypeError) return "cannot tell";
      throw error;
    }
    // A field for the other direction only is not in the type at all.
    const against = this.direction === "answer" ? "writeOnly" : "readOnly";
    const isOther = ({ parentSchema }: ErrorObject): boolean => parentSchema?.[against] === true;
    const errors = validate.errors ?? [];
    return errors.every(isAboutTypes) && !errors.some(isOther) ? "does not fit" : "cannot tell";
  }
}

function isAboutTypes(error: ErrorObject): boolean {
  if (/(additional|pattern|unevaluated)Properties\//.test(error.schemaPath)) return false;
  if (error.keyword === "oneOf") return error.params["passingSchemas"] === null;
  // Types cannot express alternatives that differ only in their required fields.
  if (/\/(anyOf|oneOf)\/\d+\/required$/.test(error.schemaPath)) return false;
  // For a compiler, every object inherits these.
  if (error.keyword === "required" && String(error.params["missingProperty"]) in {}) return false;
  // A number that is not an integer is still a number.
  if (error.keyword === "type" && typeof error.data === "number") return false;
  return ["type", "required", "enum", "const", "anyOf"].includes(error.keyword);
}

/** The contract with keywords of older versions as JSON Schema, and without required fields of the other direction. */
function asJsonSchema(node: unknown, version: Version, direction: "answer" | "request"): unknown {
  if (Array.isArray(node)) return node.map((each) => asJsonSchema(each, version, direction));
  if (typeof node !== "object" || node === null) return node;
  const copy: Json = {};
  for (const [key, value] of Object.entries(node)) {
    if (
      (key === "properties" || key === "responses" || key === "schemas") &&
      typeof value === "object" &&
      value !== null
    ) {
      const fields = Object.entries(value as Json).map(([name, each]) => [
        name,
        asJsonSchema(each, version, direction),
      ]);
      copy[key] = Object.fromEntries(fields) as Json;
      continue;
    }
    const kept = key === "const" || key === "enum" || key === "example" || key === "default";
    Object.defineProperty(copy, key, {
      value: kept ? value : asJsonSchema(value, version, direction),
      enumerable: true,
      configurable: true,
      writable: true,
    });
  }
  if (typeof copy["required"] === "boolean") delete copy["required"];
  if (copy["type"] === "file") delete copy["type"];
  // Properties without a type allow everything that is not an object, which nobody means.
  if (copy["properties"] !== undefined && copy["type"] === undefined) copy["type"] = "object";
  const properties = (node as Json)["properties"] as Json | undefined;
  const against = direction === "answer" ? "writeOnly" : "readOnly";
  if (Array.isArray(copy["required"]) && properties)
    copy["required"] = copy["required"].filter(
      (name: string) => (properties[name] as Json | undefined)?.[against] !== true,
    );
  const isNullable = copy["nullable"] === true || copy["x-nullable"] === true;
  if (!isNullable || version === "3.1" || version === "3.2") return copy;
  delete copy["nullable"];
  delete copy["x-nullable"];
  return { anyOf: [copy, { type: "null" }] };
}
