import { kebabCase } from "../../../core/text/words.js";
import type { Project } from "../../project/project.js";
import type { FoundCall } from "../../try/foundCall.js";
import type { WrittenProgram } from "../languageTools.js";
import { writeMissing } from "../writeMissing.js";
import { modulesOf, runnableModules } from "./runnable.js";

/**
 * Writes a small program that makes a call, with the SDK's modules for it as plain JavaScript, which Node runs as it
 * is. Only missing files are written.
 *
 * @param folder the output folder, relative to the project
 * @param values the arguments of the call, as in JSON
 */
export function writeProgram(
  project: Project,
  folder: string,
  {
    call,
    baseUrl,
    values,
  }: { readonly call: FoundCall; readonly baseUrl: string; readonly values: Readonly<Record<string, unknown>> },
): WrittenProgram {
  const base = kebabCase(call.name) || "call";
  const entries = modulesOf(call);
  const modules = runnableModules(call.files, entries);
  const files = new Map([
    [`${base}.mjs`, programText(call, entries, { baseUrl, values })],
    ...[...modules].map(([path, text]): [string, string] => [`${base}-sdk/${path}`, text]),
  ]);
  const { written, kept, shown } = writeMissing(project, folder, files);
  const program = shown(`${base}.mjs`);
  return { program, run: `node ${program}`, written, kept };
}

function programText(
  call: FoundCall,
  [callModule, connectModule]: readonly [string, string],
  { baseUrl, values }: { readonly baseUrl: string; readonly values: Readonly<Record<string, unknown>> },
): string {
  const base = kebabCase(call.name) || "call";
  const module = (path: string): string => `./${base}-sdk/${path.replace(/\.ts$/, ".mjs")}`;
  const environment = `${call.contract.replaceAll("-", "_").toUpperCase()}_URL`;
  const options = [
    `  baseUrl: process.env.${environment} ?? ${JSON.stringify(baseUrl)},`,
    ...(call.credentials.length > 0
      ? [
          "  auth: {",
          ...call.credentials.map((name) => {
            const variable = kebabCase(name).replaceAll("-", "_").toUpperCase() || "TOKEN";
            return `    ${JSON.stringify(name)}: () => process.env.${variable} ?? "any-token",`;
          }),
          "  },",
        ]
      : []),
    ...(call.standing.length > 0
      ? [`  standing: ${literal(Object.fromEntries(call.standing.map(({ name }) => [name, values[name]])))},`]
      : []),
  ];
  const own = Object.fromEntries(
    Object.entries(values).filter(([name]) => call.taken.some((each) => each.name === name)),
  );
  const args = literal(own).replaceAll("\n", "\n  ");
  const performing = call.isStream
    ? `  for await (const item of await ${call.name}(connection, ${args})) console.dir(item, { depth: null });`
    : `  console.dir(await ${call.name}(connection, ${args}), { depth: null });`;
  return `// Performs ${call.name} (${call.label.replace(/\s+/g, " ")}). Run it with: node ${base}.mjs
import { ${call.connect} } from ${JSON.stringify(module(connectModule))};
import { ${call.name} } from ${JSON.stringify(module(callModule))};

const connection = ${call.connect}({
${options.join("\n")}
});
try {
${performing}
} catch (failure) {
  // A failure of the call shows its status and the body from the server.
  console.error(failure.message, failure.body ?? failure.errors ?? failure.cause ?? "");
  process.exitCode = 1;
}
`;
}

/** A value as a literal. A value that JSON cannot express is left to be filled in. */
function literal(value: unknown): string {
  return JSON.stringify(value, (_key, inner: unknown) => (inner instanceof Blob ? "…" : inner), 2)
    .replaceAll("\u2028", "\\u2028")
    .replaceAll("\u2029", "\\u2029");
}
