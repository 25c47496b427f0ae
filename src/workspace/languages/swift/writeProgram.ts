import { contractContext, type ContractContext } from "../../../core/languages/swift/contractContext.js";
import { givenArguments } from "../../../core/languages/swift/calls/callSignature.js";
import { quoted } from "../../../core/languages/swift/names/escape.js";
import { parameterIdentifier, spelled } from "../../../core/languages/swift/names/identifiers.js";
import { argumentName } from "../../../core/languages/swift/names/names.js";
import { programPackage } from "../../../core/languages/swift/packageFile.js";
import { standingName } from "../../../core/languages/swift/calls/printConnection.js";
import { variableName } from "../../../core/languages/swift/calls/printGraphqlCall.js";
import { fieldState } from "../../../core/languages/swift/types/printType.js";
import { printValue } from "../../../core/languages/swift/types/printValue.js";
import { listed } from "../../../core/languages/swift/swiftFile.js";
import { memberNameFrom } from "../../../core/sdk/nameScope.js";
import { sortedBy } from "../../../core/text/sortedBy.js";
import { kebabCase } from "../../../core/text/words.js";
import type { Project } from "../../project/project.js";
import type { FoundCall } from "../../try/foundCall.js";
import type { WrittenProgram } from "../languageTools.js";
import { writeMissing } from "../writeMissing.js";

type Values = Readonly<Record<string, unknown>>;

/**
 * Writes a small program that makes a call, as a package with the smallest SDK for it. Only missing files are written.
 *
 * @param folder the output folder, relative to the project
 * @param values the arguments of the call, as in JSON
 */
export function writeProgram(
  project: Project,
  folder: string,
  { call, baseUrl, values }: { readonly call: FoundCall; readonly baseUrl: string; readonly values: Values },
): WrittenProgram {
  const base = kebabCase(call.name) || "call";
  const context = contractContext(call.lowered, {}, call.scalars);
  const run = `swift run --package-path ${folder}/${base}`;
  const program = `${base}/Sources/main.swift`;
  const files = new Map([
    [program, programText(call, context, { baseUrl, values, run })],
    [`${base}/Package.swift`, programPackage()],
    ...[...call.files].flatMap(([path, text]): [string, string][] =>
      path.endsWith(".swift") ? [[`${base}/Sources/${call.sdk}/${path}`, text]] : [],
    ),
  ]);
  const { written, kept, shown } = writeMissing(project, folder, files);
  return { program: shown(program), run, written, kept };
}

function givenTexts(values: Values, context: ContractContext): string[] {
  const { contract } = context;
  if (contract.protocol === "rest")
    return contract.calls.flatMap((lowered) =>
      givenArguments(lowered).flatMap((argument) => {
        const name = argumentName(argument);
        const own = Object.hasOwn(values, argument.name) ? argument.name : name;
        if (argument.standing || !Object.hasOwn(values, own)) return [];
        return [`${name}: ${printValue(values[own], argument.type, context)}`];
      }),
    );
  return contract.calls.flatMap(({ call: { variables } }) =>
    sortedBy(variables, (field) => variableName(field, variables)).flatMap((field) => {
      if (!Object.hasOwn(values, field.name)) return [];
      const value = values[field.name];
      const made = printValue(value, field.type, context);
      const isSent = fieldState(field, true, context) === "sent";
      return [`${variableName(field, variables)}: ${!isSent ? made : value === null ? ".null" : `.value(${made})`}`];
    }),
  );
}

function programText(
  call: FoundCall,
  context: ContractContext,
  { baseUrl, values, run }: { readonly baseUrl: string; readonly values: Values; readonly run: string },
): string {
  const { contract, connection, wire } = context;
  const valueOf = (name: string): unknown => (Object.hasOwn(values, name) ? values[name] : undefined);
  const environment = (name: string, otherwise: string): string =>
    `ProcessInfo.processInfo.environment[${quoted(name)}] ?? ${quoted(otherwise)}`;
  const auth = call.credentials.map((name) => {
    const variable = kebabCase(name).replaceAll("-", "_").toUpperCase() || "TOKEN";
    return `${parameterIdentifier(memberNameFrom(name))}: { ${environment(variable, "any-token")} }`;
  });
  const standing =
    contract.protocol === "rest"
      ? contract.connection.standing.map(({ member, parameter }): [string, string] => [
          standingName(member),
          printValue(valueOf(member) ?? valueOf(parameter.name), parameter.type, context),
        ])
      : [];
  const credentials = contract.protocol === "rest" ? `.init(${auth.join(", ")})` : auth.join("").replace(/^\w+: /, "");
  const address = environment(`${call.contract.replaceAll("-", "_").toUpperCase()}_URL`, baseUrl);
  const given: [string, string][] = [
    ...(auth.length === 0 ? [] : [[contract.protocol === "rest" ? "auth" : "bearer", credentials] as [string, string]]),
    ["baseURL", address],
    ...standing,
  ];
  const made = sortedBy(given, ([name]) => name).map(([name, text]) => `${name}: ${text}`);
  const performed = `connection.${spelled(call.name)}`;
  const taken = givenTexts(values, context);
  const body = call.isStream
    ? `${listed(`  for try await item in ${performed}`, taken, " { print(item) }")}\n`
    : `${listed(`  let answer = try await ${performed}`, taken, "")}\n  print(answer)\n`;
  return `// Performs ${call.name} (${call.label.replace(/\s+/g, " ")}). Run it with: ${run}
import Foundation

/// The error in words: a failure of the call shows its status and the body from the server.
func words(_ error: any Error) -> String {
  guard let failure = error as? any ${wire}.CallFailure else { return "\\(error)" }
  return "\\(failure) \\(failure.answer?.text ?? "")"
}

${listed(`let connection = ${connection}`, made, "")}
do {
${body}} catch {
  FileHandle.standardError.write(Data((words(error) + "\\n").utf8))
  exit(1)
}
`;
}
