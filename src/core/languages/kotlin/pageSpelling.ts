import type { Reference } from "../../contract/model.js";
import { pascalCase } from "../../text/words.js";
import { codeSpan } from "../pages/markdown.js";
import { neededValues } from "../pages/neededValues.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { inFile, type ContractContext } from "./contractContext.js";
import { packageSegment, spelled } from "./names/identifiers.js";
import { argumentName } from "./names/names.js";
import { usualAnswer } from "./calls/printAnswer.js";
import { variableName } from "./calls/printGraphqlCall.js";
import { sampleText } from "./testing/printSample.js";
import { printReference } from "./types/printType.js";

/** Returns how Kotlin spells the pages of documentation. */
export function pageSpelling(given: ContractContext): PageSpelling {
  const context = inFile(given);
  const { names } = context;
  const callName: PageSpelling["callName"] = ({ call }) => names.call(call).call;
  const type = (reference: Reference): string => printReference(reference, context);
  return {
    fence: "kotlin",
    callName,
    pagesName: ({ call }) => names.call(call).items,
    argumentName,
    type,
    answerType: (lowered) => usualAnswer(lowered, context).type,
    page: ({ plan }, file) => `${packageSegment(plan.name)}/${file}.md`,
    otherAnswers: {
      title: "In other media types",
      row: ({ call }, mediaType) => {
        const own = names.call(call);
        return `${codeSpan(own.answeredAs.get(mediaType)?.call ?? own.call)}: ${codeSpan(mediaType)}`;
      },
    },
    otherBody: ({ call }, { mediaType, type: of }) =>
      `${codeSpan("body")} ${codeSpan(`${names.call(call).body}.${pascalCase(mediaType)}(${type(of)})`)}: ${codeSpan(mediaType)}`,
    sample: (lowered) => {
      const text = neededValues(lowered, { argument: argumentName, variable: variableName }).map(
        ({ name, type: of }) => `${spelled(name)} = ${sampleText(of, context) ?? "…"}`,
      );
      const performed = `connection.${spelled(callName(lowered))}(${text.join(", ")})`;
      return lowered.isStream ? `${performed}.collect { println(it) }` : performed;
    },
  };
}
