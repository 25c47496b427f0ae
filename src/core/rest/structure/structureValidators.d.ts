/** Compiled from schema/openapi-structure.json when the program is bundled; see scripts/compileValidators.mjs. */
declare module "rhema:structure-validators" {
  type Validators = Readonly<
    Record<import("./structureKinds.js").StructureKind, import("ajv").ValidateFunction | undefined>
  >;
  /** Violations that the reader would misread. */
  export const faults: Validators;
  /** Violations of a rule that do not affect the SDK. */
  export const rules: Validators;
  /**
   * For each kind, the conditions under which an object breaks no rule: its required members, and the types of its
   * members. The types are those of JSON Schema, "texts" for a list of strings, and "count" for an integer from 0.
   */
  export const plain: Readonly<
    Partial<
      Record<
        import("./structureKinds.js").StructureKind,
        { readonly required: readonly string[]; readonly types: Readonly<Record<string, readonly string[]>> }
      >
    >
  >;
}
