import { sentences } from "../../../sdk/lower/sentences.js";
import type { Reference } from "../../../contract/model.js";
import { argumentWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PlannedArgument } from "../../../sdk/sdkPlan.js";
import type { RestContext } from "../contractContext.js";
import { comment, docComment, propertyName, quoted } from "../names/escape.js";
import { argumentKey } from "../names/names.js";
import { printPresence } from "../types/printShapes.js";
import type { TypePrinter } from "../types/printType.js";

/** Prints the type of a call's arguments; "" if it has none. */
export function printArguments({ call, request }: LoweredCall, { names, printer }: RestContext): string {
  if (call.arguments.length === 0) return "";
  const own = names.rest(call);
  const body = request.body && request.body.ways.length > 1 ? request.body : undefined;
  const fields = call.arguments
    .filter((argument) => argument !== body?.argument)
    .map((argument) => printArgument(argument, argument.type, printer));
  const words = comment(sentences.arguments(own.call));
  if (!body) return `${words}export interface ${own.args} {\n${fields.join("")}}\n`;
  const ways = body.ways.map(({ mediaType, type }, at) => {
    const isUsual = at === 0;
    const said = `  readonly bodyType${isUsual ? "?" : ""}: ${quoted(mediaType)}${isUsual ? " | undefined" : ""};\n`;
    return `{\n${printArgument(body.argument, type, printer)}${said}}`;
  });
  const common = fields.length === 0 ? "" : `{\n${fields.join("")}} & `;
  return `${words}export type ${own.args} = ${common}(\n  | ${ways.map((way) => way.replaceAll("\n", "\n    ")).join("\n  | ")}\n);\n`;
}

function printArgument(argument: PlannedArgument, type: Reference, printer: TypePrinter): string {
  const doc = docComment(argumentWords(argument, type), "  ");
  return `${doc}  readonly ${propertyName(argumentKey(argument))}${printPresence(type, argument.required, { printer, stance: "lenient" })};\n`;
}
