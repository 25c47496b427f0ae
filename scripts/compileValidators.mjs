// Compiles the JSON Schemas that the program checks with, once instead of in every run. Used by the build and the tests.
import { readFileSync } from "node:fs";
import { Ajv } from "ajv";
import standaloneCode from "ajv/dist/standalone/index.js";

const schemaFile = (name) => JSON.parse(readFileSync(new URL(`../schema/${name}`, import.meta.url), "utf8"));

function configurationValidator() {
  const ajv = new Ajv({ allErrors: true, verbose: true, strict: false, code: { source: true, esm: true } });
  return standaloneCode.default(ajv, ajv.compile(schemaFile("rhema.schema.json")));
}

function structureValidators() {
  const ajv = new Ajv({ allErrors: true, verbose: true, strict: false, code: { source: true, esm: true } });
  const kinds = Object.entries(schemaFile("openapi-structure.json"));
  const names = {};
  const tables = ["faults", "rules"].map((table) => {
    const rows = kinds.map(([kind, schemas]) => {
      if (Object.keys(schemas[table]).length === 0) return `${kind}: undefined`;
      const id = `${kind}_${table}`;
      ajv.addSchema({ $id: id, ...schemas[table] });
      names[id] = id;
      return `${kind}: ${id}`;
    });
    return `export const ${table} = { ${rows.join(", ")} };`;
  });
  return `${standaloneCode.default(ajv, names)}\n${tables.join("\n")}\n`;
}

/** The source of each module that is made from a schema, by the name it is imported under. */
export const compiledModules = {
  "rhema:configuration-validator": configurationValidator,
  "rhema:structure-validators": structureValidators,
};
