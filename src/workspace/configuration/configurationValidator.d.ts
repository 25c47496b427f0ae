/** Compiled from schema/rhema.schema.json when the program is bundled; see scripts/build.mjs. */
declare module "rhema:configuration-validator" {
  const validate: import("ajv").ValidateFunction;
  export default validate;
}
