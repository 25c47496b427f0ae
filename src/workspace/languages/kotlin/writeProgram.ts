import { contractContext, inFile, type FileContext } from "../../../core/languages/kotlin/contractContext.js";
import { buildFiles } from "../../../core/languages/kotlin/buildLines.js";
import { quoted } from "../../../core/languages/kotlin/names/escape.js";
import { spelled, usualNamespace } from "../../../core/languages/kotlin/names/identifiers.js";
import { argumentName } from "../../../core/languages/kotlin/names/names.js";
import { standingName } from "../../../core/languages/kotlin/calls/printConnection.js";
import { variableName } from "../../../core/languages/kotlin/calls/printGraphqlCall.js";
import { fieldState } from "../../../core/languages/kotlin/types/printType.js";
import { printValue } from "../../../core/languages/kotlin/types/printValue.js";
import { memberNameFrom } from "../../../core/sdk/nameScope.js";
import { kebabCase } from "../../../core/text/words.js";
import type { Project } from "../../project/project.js";
import type { FoundCall } from "../../try/foundCall.js";
import type { WrittenProgram } from "../languageTools.js";
import { writeMissing } from "../writeMissing.js";

/**
 * Writes a small program that makes a call, with the smallest SDK for it and a Maven build. Only missing files are
 * written.
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
  const namespace = usualNamespace(call.sdk);
  const context = inFile(contractContext(call.lowered, namespace, { scalars: call.scalars, formats: {} }));
  const run = `mvn -q -B -f ${folder}/${base}/pom.xml compile exec:java`;
  const program = `${base}/src/main/kotlin/Main.kt`;
  const files = new Map([
    [program, programText(call, context, { baseUrl, values, run })],
    [`${base}/pom.xml`, buildFiles(namespace, base, "MainKt").get("pom.xml") ?? ""],
    ...[...call.files].flatMap(([path, text]): [string, string][] =>
      path.endsWith(".kt") ? [[`${base}/src/main/kotlin/${call.sdk}/${path}`, text]] : [],
    ),
  ]);
  const { written, kept, shown } = writeMissing(project, folder, files);
  return { program: shown(program), run, written, kept };
}

function programText(
  call: FoundCall,
  context: FileContext,
  {
    baseUrl,
    values,
    run,
  }: { readonly baseUrl: string; readonly values: Readonly<Record<string, unknown>>; readonly run: string },
): string {
  const { contract, uses, names } = context;
  const given =
    contract.protocol === "rest"
      ? contract.calls.flatMap(({ call: { arguments: taken } }) =>
          taken.flatMap((argument) => {
            const name = argumentName(argument);
            if (argument.standing || !Object.hasOwn(values, name)) return [];
            return [`${spelled(name)} = ${printValue(values[name], argument.type, context)}`];
          }),
        )
      : contract.calls.flatMap(({ call: { variables } }) =>
          variables.flatMap((field) => {
            if (!Object.hasOwn(values, field.name)) return [];
            const made = printValue(values[field.name], field.type, context);
            const isSent = fieldState(field, true, context) === "sent";
            return [`${spelled(variableName(field, variables))} = ${isSent ? `${uses.wire("sent")}(${made})` : made}`];
          }),
        );
  const valueOf = (name: string): unknown => (Object.hasOwn(values, name) ? values[name] : undefined);
  const environment = `${call.contract.replaceAll("-", "_").toUpperCase()}_URL`;
  const auth = call.credentials.map((name) => {
    const variable = kebabCase(name).replaceAll("-", "_").toUpperCase() || "TOKEN";
    return `${spelled(memberNameFrom(name))} = { System.getenv(${quoted(variable)}) ?: "any-token" }`;
  });
  const standing =
    contract.protocol === "rest"
      ? contract.connection.standing.map(
          ({ member, parameter }) =>
            `        ${spelled(standingName(member))} = ${printValue(valueOf(member) ?? valueOf(parameter.name), parameter.type, context)},\n`,
        )
      : [];
  const own = names.contract;
  const failure = uses.wire("CallFailure");
  const performed = `connection.${spelled(call.name)}(${given.join(", ")})`;
  uses.other("kotlin.system.exitProcess");
  uses.other("kotlinx.coroutines.runBlocking");
  const imports = uses.imports().map((each) => `import ${each}\n`);
  return `// Performs ${call.name} (${call.label.replace(/\s+/g, " ")}). Run it with: ${run}
import ${context.package}.*
${imports.join("")}
fun main(): Unit = runBlocking {
    val connection = ${own.connection}(
${auth.length === 0 ? "" : `        auth = ${own.auth}(${auth.join(", ")}),\n`}        baseUrl = System.getenv(${quoted(environment)}) ?: ${quoted(baseUrl)},
${standing.join("")}    )
    try {
        ${call.isStream ? `${performed}.collect { println(it) }` : `println(${performed})`}
    } catch (failure: ${failure}) {
        // A failure of the call shows its status and the body from the server.
        System.err.println("$failure \${failure.answer?.text.orEmpty()}")
        exitProcess(1)
    }
    exitProcess(0)
}
`;
}
