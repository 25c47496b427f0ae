/** Compiled from schema/openapi-structure.json when the program is bundled; see scripts/compileValidators.mjs. */
declare module "rhema:structure-validators" {
  type Validators = Readonly<
    Record<import("./structureKinds.js").StructureKind, import("ajv").ValidateFunction | undefined>
  >;
  /** What the reader would misunderstand. */
  export const faults: Validators;
  /** What breaks a rule of the format and costs the SDK nothing. */
  export const rules: Validators;
  /**
   * By kind, what settles that an object breaks no rule: the members it needs, and the types of
   * its members: those of JSON Schema, "texts" for a list of strings, "count" for a whole number from 0.
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
