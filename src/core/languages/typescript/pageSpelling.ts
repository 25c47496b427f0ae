import type { Reference } from "../../contract/model.js";
import type { LoweredCall, LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { codeSpan } from "../pages/markdown.js";
import type { ContractContext } from "./contractContext.js";
import { propertyName } from "./names/escape.js";
import { argumentKey } from "./names/names.js";
import { answerType } from "./calls/printAnswer.js";
import { sampleText } from "./testing/printSample.js";
import { printReference, silent } from "./types/printType.js";

/** Returns how TypeScript spells the pages of documentation. */
export function pageSpelling(context: ContractContext): PageSpelling {
  const { names } = context;
  const printer = silent(context.printer);
  const isGraphql = (lowered: LoweredCall | LoweredGraphqlCall): lowered is LoweredGraphqlCall => "file" in lowered;
  const callName = (lowered: LoweredCall | LoweredGraphqlCall): string =>
    isGraphql(lowered) ? names.graphql(lowered.call).call : names.rest(lowered.call).call;
  return {
    fence: context.isTranspiled ? "js" : "ts",
    callName,
    pagesName: ({ call }) => names.rest(call).items,
    argumentName: argumentKey,
    type: (reference, way) => printReference(reference, printer, way === "given" ? "lenient" : "exact"),
    answerType: (lowered) => answerType(lowered, { names, printer }),
    page: ({ plan }, file) => `${plan.name}/calls/${file}.md`,
    otherAnswers: { title: "By `answerType`", row: (_lowered, mediaType) => codeSpan(mediaType) },
    otherBody: ({ request }, { mediaType, type }) =>
      `${codeSpan(request.body ? argumentKey(request.body.argument) : "body")} ${codeSpan(printReference(type, printer, "lenient"))} with ${codeSpan("bodyType")} ${codeSpan(JSON.stringify(mediaType))}`,
    sample: (lowered) => {
      const given = isGraphql(lowered)
        ? sampleArguments(
            lowered.call.variables.filter(({ required }) => required),
            names.graphql(lowered.call).variables,
            context,
          )
        : sampleArguments(
            lowered.call.arguments
              .filter(({ required }) => required)
              .map((argument) => ({ name: argumentKey(argument), type: argument.type })),
            names.rest(lowered.call).args,
            context,
          );
      const performed = `${callName(lowered)}(connection${given.text})`;
      const item = isGraphql(lowered) ? "answer" : "item";
      return lowered.isStream
        ? `${given.before}for await (const ${item} of ${performed}) console.log(${item});`
        : `${given.before}await ${performed};`;
    },
  };
}

/** The arguments of a sample call, and lines before it if they are too large to be written inline. */
function sampleArguments(
  required: readonly { readonly name: string; readonly type: Reference }[],
  typeName: string,
  { printer, isTranspiled }: ContractContext,
): { before: string; text: string } {
  if (required.length === 0) return { before: "", text: "" };
  const parts = required.map(({ name, type }) => ({ name, sample: sampleText(type, printer) }));
  if (parts.some(({ sample }) => sample === undefined))
    return {
      before: isTranspiled ? `/** @type {${typeName}} */\nlet args;\n` : `declare const args: ${typeName};\n`,
      text: ", args",
    };
  return {
    before: "",
    text: `, { ${parts.map(({ name, sample }) => `${propertyName(name)}: ${sample ?? ""}`).join(", ")} }`,
  };
}
