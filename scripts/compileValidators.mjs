// Compiles the JSON Schemas that the program validates with, once instead of in every run. Used by the build and the
// tests.
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
  const plain = kinds.flatMap(([kind, { faults, rules }]) => {
    const types = plainTypes(faults, rules);
    return types ? [`${kind}: ${JSON.stringify(types)}`] : [];
  });
  return `${standaloneCode.default(ajv, names)}\n${tables.join("\n")}\nexport const plain = { ${plain.join(", ")} };\n`;
}

/**
 * The required members of an object of a kind and the types of its members, as far as that alone shows that it breaks
 * no rule. A member with any other rule has no types here. Undefined if there are rules for more than members.
 */
function plainTypes(...schemas) {
  const types = {};
  const required = new Set();
  for (const { properties = {}, required: needed = [], ...others } of schemas) {
    if (Object.keys(others).length > 0) return undefined;
    for (const key of needed) required.add(key);
    for (const [key, rule] of Object.entries(properties)) {
      const listed = plainNames(rule);
      types[key] = types[key] ? types[key].filter((each) => listed.includes(each)) : listed;
    }
  }
  return { required: [...required], types };
}

function plainNames({ type, ...more }) {
  const others = JSON.stringify(more);
  if (type === "array" && others === '{"items":{"type":"string"}}') return ["texts"];
  if (type === "integer" && others === '{"minimum":0}') return ["count"];
  return type === undefined || others !== "{}" ? [] : [type].flat();
}

/** The source of each module that is made from a schema, by its import name. */
export const compiledModules = {
  "rhema:configuration-validator": configurationValidator,
  "rhema:structure-validators": structureValidators,
};
