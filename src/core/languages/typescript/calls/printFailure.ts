import { failureWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { RestContext } from "../contractContext.js";
import { docComment, quoted } from "../names/escape.js";
import { printReference } from "../types/printType.js";

const widestAlias = 110;

/** Prints the type of a call's failures and their type guard. */
export function printFailure({ call, label }: LoweredCall, { names, printer }: RestContext): string {
  const own = names.rest(call);
  const members = call.failures.map((failure) => {
    const body = failure.type ? printReference(failure.type, printer, "exact") : "undefined";
    const status = /^\d+$/.test(failure.status) ? failure.status : quoted(failure.status);
    return `wire.StatusFailure<${status}, ${body}>`;
  });
  const all = [...members, "wire.OtherFailure"];
  const line = `export type ${own.failure} = ${all.join(" | ")};`;
  const type =
    line.length <= widestAlias
      ? line
      : `export type ${own.failure} =${all.map((member) => `\n  | ${member}`).join("")};`;
  return `${docComment(failureWords(own.call, call))}${type}\n\n${printGuard(own, label)}`;
}

/** Prints the type guard for the failures of a call. */
export function printGuard(
  names: { readonly call: string; readonly failure: string; readonly isFailure: string },
  label: string,
): string {
  return (
    `/** Whether an error is a failure of \`${names.call}\`. Its \`status\` then narrows the type. */\n` +
    `export function ${names.isFailure}(error: unknown): error is ${names.failure} {\n` +
    `  return wire.isFailure(error, ${quoted(label)});\n}\n`
  );
}
