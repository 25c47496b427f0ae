import type { ContractReading } from "./contract/contractReading.js";

import { readGraphqlContract } from "./graphql/readGraphqlContract.js";
import { looksLikeSchema } from "./graphql/schemaTexts.js";
import type { SourceText } from "./problem/place.js";
import { problem } from "./problem/problem.js";
import { readRestTexts } from "./rest/readRestTexts.js";

/**
 * Reads the texts of one contract and detects the protocol.
 *
 * @param name the contract's name in the configuration
 * @param texts for REST, the OpenAPI document and the documents it refers to; for GraphQL, all texts of the schema;
 * with their line endings as they are
 * @param unobtainable why documents that an earlier reading wanted are not available, as the end of a sentence
 */
export function readContract(
  name: string,
  texts: readonly SourceText[],
  unobtainable: ReadonlyMap<string, string> = new Map(),
): ContractReading {
  const empty = texts.find(({ text }) => text.trim() === "");
  if (empty) {
    return {
      problems: [
        problem("contract.empty", `The contract file \`${empty.document}\` is empty.`, {
          hint: "Fetch or save it again.",
        }),
      ],
    };
  }
  const [first] = texts;
  if (!first) return { problems: [problem("contract.missing", `The contract \`${name}\` has no file.`)] };
  if (texts.every(looksLikeSchema)) return readGraphqlContract(name, texts);
  return readRestTexts(name, texts, unobtainable);
}
