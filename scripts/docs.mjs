// Prints the program's own tables: the reference pages of docs/, and the languages' parts of the configuration's
// schema.
import { readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { format } from "prettier";
import { languages, renderChangeReference, renderProblemReference, withLanguages } from "../dist/core/index.js";

process.chdir(fileURLToPath(new URL("..", import.meta.url)));
writeFileSync("docs/problems.md", renderProblemReference());
writeFileSync("docs/changes.md", renderChangeReference(await Promise.all(languages.map((each) => each.load()))));
const schemaFile = "schema/rhema.schema.json";
const schema = withLanguages(JSON.parse(readFileSync(schemaFile, "utf8")), languages);
writeFileSync(schemaFile, await format(JSON.stringify(schema), { filepath: schemaFile, printWidth: 120 }));
console.log(`docs: wrote docs/problems.md, docs/changes.md and ${schemaFile}`);
