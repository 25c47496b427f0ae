import type { Reference } from "../../contract/model.js";
import { codeSpan } from "../pages/markdown.js";
import { neededValues } from "../pages/neededValues.js";
import type { PageSpelling } from "../pages/pageSpelling.js";
import { bodyCases } from "./calls/bodyCases.js";
import type { ContractContext } from "./contractContext.js";
import { spelled } from "./names/identifiers.js";
import { argumentName } from "./names/names.js";
import { usualAnswer } from "./calls/printAnswer.js";
import { variableName } from "./calls/printGraphqlCall.js";
import { sampleText } from "./testing/printSample.js";
import { printReference } from "./types/printType.js";

/** Returns how Swift spells the pages of documentation. */
export function pageSpelling(context: ContractContext): PageSpelling {
  const { names, space } = context;
  const callName: PageSpelling["callName"] = ({ call }) => names.call(call).call;
  // Pages are read, not compiled: the language's own types need no module there.
  const type = (reference: Reference): string => printReference(reference, context).replace(/\bSwift\./g, "");
  return {
    fence: "swift",
    callName,
    pagesName: ({ call }) => names.call(call).items,
    argumentName,
    type,
    answerType: (lowered) => usualAnswer(lowered, context).type.replace(/\bSwift\./g, ""),
    page: (_, file) => `${space}/${file}.md`,
    otherAnswers: {
      title: "In other media types",
      row: ({ call }, mediaType) => {
        const own = names.call(call);
        return `${codeSpan(own.answeredAs.get(mediaType)?.call ?? own.call)}: ${codeSpan(mediaType)}`;
      },
    },
    otherBody: ({ request }, { mediaType, type: of }) => {
      const name = bodyCases(request.body?.ways ?? []).find(({ way }) => way.mediaType === mediaType)?.name ?? "";
      return `${codeSpan("body")} ${codeSpan(`.${name}(${type(of)})`)}: ${codeSpan(mediaType)}`;
    },
    sample: (lowered) => {
      const given = neededValues(lowered, { argument: argumentName, variable: variableName }).map(
        ({ name, type: of }) => `${name}: ${sampleText(of, context) ?? "…"}`,
      );
      const performed = `connection.${spelled(callName(lowered))}(${given.join(", ")})`;
      return lowered.isStream ? `for try await item in ${performed} { print(item) }` : `try await ${performed}`;
    },
  };
}
