/** Compiled from schema/openapi-structure.json when the program is bundled; see scripts/compileValidators.mjs. */
declare module "rhema:structure-validators" {
  type Validators = Readonly<
    Record<import("./structureKinds.js").StructureKind, import("ajv").ValidateFunction | undefined>
  >;
  /** What the reader would misunderstand. */
  export const faults: Validators;
  /** What breaks a rule of the format and costs the SDK nothing. */
  export const rules: Validators;
}
