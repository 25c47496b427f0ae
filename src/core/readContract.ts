import type { GraphQLSchema } from "graphql";
import type { Contract } from "./contract/model.js";
import { readGraphqlContract } from "./graphql/readGraphqlContract.js";
import { looksLikeSchema } from "./graphql/schemaTexts.js";
import type { SourceText } from "./problem/place.js";
import { problem, type Problem } from "./problem/problem.js";
import { readRestTexts } from "./rest/readRestTexts.js";

export interface ContractReading {
  /** Absent when nothing is readable; then the problems say why. */
  readonly contract?: Contract;
  /** GraphQL only: what query documents are checked and typed against. */
  readonly schema?: GraphQLSchema;
  /** GraphQL only: the schema as texts in schema definition language, whatever it came as. */
  readonly texts?: readonly SourceText[];
  /** Texts that places refer to and that are no document of anybody's. */
  readonly derived?: readonly SourceText[];
  /** REST only: the parsed document; one made of all of them where there are several. */
  readonly raw?: unknown;
  /** REST only: documents that are referred to and were not given; a path of the project, or a URL. */
  readonly wanted?: readonly string[];
  readonly problems: readonly Problem[];
}

/**
 * Reads the texts of one contract, whichever protocol they turn out to be.
 *
 * @param name the contract's name in the configuration
 * @param texts for REST the description and the documents it refers to; for GraphQL all texts of the schema; line ends
 * as they are
 * @param unobtainable why documents that an earlier reading wanted cannot be had, as the end of a sentence
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
