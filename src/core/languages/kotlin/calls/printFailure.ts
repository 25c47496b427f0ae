import { failureWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import type { PlannedResponse } from "../../../sdk/sdkPlan.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { widest } from "../kotlinFile.js";
import { besideNested } from "../names/nestedNames.js";
import { bodyType } from "./bodyForm.js";
import { orNull } from "../types/printType.js";
import { statusClass } from "./statusClass.js";

/**
 * Prints the failures of a call: a class for each declared status, and one for the failures that every call can have.
 */
export function printFailure(lowered: LoweredCall, context: RestContext & FileContext): string {
  const { call, failures } = lowered;
  const names = context.names.call(call);
  const nested = [...call.failures.map(({ status }) => statusClass(status)), "Other"];
  const classes = call.failures.map((response, at) => {
    const reading = failures[at];
    const type = reading && bodyType(response, reading, context);
    return printStatus(response, { type, nested, failure: names.failure }, context);
  });
  return printFailureClass(docComment(failureWords(names.call, call)), names.failure, {
    classes,
    fileContext: context,
  });
}

/** Prints a sealed class of failures, with the failures that every call can have. */
export function printFailureClass(
  doc: string,
  name: string,
  { classes, fileContext: { uses } }: { readonly classes: readonly string[]; readonly fileContext: FileContext },
): string {
  const report = uses.wire("Report");
  const head = `    public class Other internal constructor(report: ${report}, public val mishap: ${uses.wire("Mishap")}) :`;
  const above = `${name}(report)`;
  const between = head.length + 1 + above.length <= widest ? " " : "\n        ";
  const other = `    /** ${sentences.otherFailure} */\n${head}${between}${above}\n`;
  return `${doc}public sealed class ${name} private constructor(report: ${report}) : ${uses.wire("CallFailure")}(report) {\n${[...classes, other].join("\n")}}\n`;
}

function printStatus(
  { status, description }: PlannedResponse,
  {
    type,
    nested,
    failure,
  }: { readonly type: string | undefined; readonly nested: readonly string[]; readonly failure: string },
  context: FileContext,
): string {
  const said = description?.trim() ?? "";
  const doc = docComment({ paragraphs: [said === "" ? status : `${status}: ${said}`] }, "    ");
  const report = context.uses.wire("Report");
  if (type === undefined)
    return `${doc}    public class ${statusClass(status)} internal constructor(report: ${report}) : ${failure}(report)\n`;
  const body = orNull(besideNested(type, nested, context));
  return (
    `${doc}    public class ${statusClass(status)} internal constructor(\n        report: ${report},\n` +
    `        /** ${sentences.failureBody} */\n        public val body: ${body},\n    ) : ${failure}(report)\n`
  );
}
