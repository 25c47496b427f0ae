// The floor: a bare process that reads the inputs, parses them, and writes the same bytes in 40 files.
// Usage: node floor.mjs OUT BYTES FILE…
import { readFileSync, mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const [out, bytes, ...files] = process.argv.slice(2);
for (const file of files) {
  const text = readFileSync(file, "utf8");
  if (file.endsWith(".json")) JSON.parse(text);
  else if (/\.ya?ml$/.test(file)) (await import("js-yaml")).load(text);
  else {
    const { buildSchema, parse } = await import("graphql");
    if (
      /^(query|mutation|subscription|fragment|#[^\n]*\n(query|mutation|subscription))/m.test(text) &&
      !/^type /m.test(text)
    )
      parse(text);
    else buildSchema(text);
  }
}
mkdirSync(out, { recursive: true });
const part = "x".repeat(Math.ceil(Number(bytes) / 40));
for (let at = 0; at < 40; at++) writeFileSync(join(out, `${at}.ts`), part);
