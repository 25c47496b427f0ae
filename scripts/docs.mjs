// Prints the reference pages of docs/ from the program's own tables.
import { writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { renderChangeReference, renderProblemReference } from "../dist/core/index.js";

process.chdir(fileURLToPath(new URL("..", import.meta.url)));
writeFileSync("docs/problems.md", renderProblemReference());
writeFileSync("docs/changes.md", renderChangeReference());
console.log("docs: wrote docs/problems.md and docs/changes.md");
