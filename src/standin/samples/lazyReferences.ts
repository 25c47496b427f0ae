import type { Ajv2020, ValidateFunction } from "ajv/dist/2020.js";
import { isData } from "../../core/text/parseData.js";

/** The keyword for a reference that is followed when a value reaches it. */
const keyword = "x-rhema-reference";

/** Keys with schemas by names of the author's own. */
const namedSchemas = new Set([
  "properties",
  "patternProperties",
  "$defs",
  "definitions",
  "dependentSchemas",
  "schemas",
]);
/** Keys with data. */
const data = new Set(["enum", "const", "default", "example", "examples"]);

/** Keywords that need the result of a reference, or change its target. */
const needsPlainReferences =
  /"(?:unevaluated(?:Properties|Items)|\$id|\$anchor|\$dynamicRef|\$dynamicAnchor|\$recursiveRef)"\s*:/;

/**
 * Returns the document with references that are followed late, if that makes no difference; otherwise the document
 * itself. Otherwise all referenced schemas would be compiled at the first request, one inside the other: half a minute
 * for a thousand types.
 */
export function withLazyReferences(document: unknown): unknown {
  return needsPlainReferences.test(JSON.stringify(document)) ? document : lazy(document, false);
}

function lazy(node: unknown, areNames: boolean): unknown {
  if (Array.isArray(node)) return node.map((each) => lazy(each, false));
  if (!isData(node)) return node;
  const copy: Record<string, unknown> = {};
  for (const [key, value] of Object.entries(node)) {
    const isReference = !areNames && key === "$ref" && typeof value === "string" && value.startsWith("#");
    const isData = !areNames && data.has(key);
    Object.defineProperty(copy, isReference ? keyword : key, {
      value: isReference || isData ? value : lazy(value, !areNames && namedSchemas.has(key)),
      enumerable: true,
      writable: true,
      configurable: true,
    });
  }
  return copy;
}

/** Adds the keyword to a validator. A referenced schema is compiled when the first value reaches it. */
export function addLazyReferences(ajv: Ajv2020, documentId: string): void {
  const compiled = new Map<string, ValidateFunction | undefined>();
  const targetOf = (reference: string): ValidateFunction | undefined => {
    if (!compiled.has(reference)) {
      let target: ValidateFunction | undefined;
      try {
        target = ajv.compile({ $ref: documentId + reference });
      } catch {
        // A reference that does not resolve, or leads to an invalid schema, cannot refuse anything.
        target = undefined;
      }
      compiled.set(reference, target);
    }
    return compiled.get(reference);
  };
  const validate = Object.assign(
    (reference: string, value: unknown, _schema: unknown, context?: Parameters<ValidateFunction>[1]): boolean => {
      const target = targetOf(reference);
      const isValid = !target || target(value, context);
      validate.errors = isValid ? undefined : (target.errors ?? undefined);
      return isValid;
    },
    { errors: undefined as ValidateFunction["errors"] | undefined },
  );
  ajv.addKeyword({ keyword, schemaType: "string", validate: validate as never, errors: "full", modifying: true });
}
