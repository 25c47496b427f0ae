import { failureWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import { sentences } from "../../../sdk/lower/sentences.js";
import { bodyType } from "./bodyForm.js";
import type { ContractContext, RestContext } from "../contractContext.js";
import { docComment } from "../names/escape.js";
import { statusCase } from "./statusCase.js";

/**
 * Prints the failures of a call: a case for each declared status, and one for the failures that every call can have.
 */
export function printFailure({ call, failures }: LoweredCall, context: RestContext): string {
  const names = context.names.call(call);
  const cases = call.failures.map((response, at): FailureCase => {
    const reading = failures[at];
    const said = response.description?.trim() ?? "";
    const type = (reading && bodyType(response, reading, context)) ?? "Swift.Never";
    return {
      words: said === "" ? response.status : `${response.status}: ${said}`,
      name: statusCase(response.status),
      type: `${context.wire}.Declared<${type.replace(/\?$/, "")}>`,
    };
  });
  return printFailureEnum(docComment(failureWords(names.call, call)), names.failure, {
    cases,
    contractContext: context,
  });
}

/** A case of a failure. */
export interface FailureCase {
  readonly words: string;
  readonly name: string;
  readonly type: string;
}

/** Prints an enum of failures, with the failures that every call can have. */
export function printFailureEnum(
  doc: string,
  name: string,
  {
    cases,
    contractContext: { access, wire },
  }: { readonly cases: readonly FailureCase[]; readonly contractContext: ContractContext },
): string {
  const all = [...cases, { words: sentences.otherFailure, name: "other", type: `${wire}.OtherFailure` }];
  const lines = all.map(
    (each) => `${docComment({ paragraphs: [each.words] }, "  ")}  case ${each.name}(${each.type})\n`,
  );
  const rows = all.map((each) => `    case .${each.name}(let failure): failure.report\n`);
  return (
    `${doc}${access}enum ${name}: ${wire}.CallFailure {\n${lines.join("")}\n` +
    `  ${access}var report: ${wire}.Report {\n    switch self {\n${rows.join("")}    }\n  }\n}\n`
  );
}
