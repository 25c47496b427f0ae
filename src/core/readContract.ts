import type { GraphQLSchema } from "graphql";
import type { Contract } from "./contract/model.js";
import { readGraphqlContract } from "./graphql/readGraphqlContract.js";
import type { SourceText } from "./problem/place.js";
import { problem, type Problem } from "./problem/problem.js";
import { readRestTexts } from "./rest/readRestTexts.js";

export interface ContractReading {
  /** Absent when nothing is readable; then the problems say why. */
  readonly contract?: Contract;
  /** GraphQL only: what query documents are checked and typed against. */
  readonly schema?: GraphQLSchema;
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
  if (texts.every(looksLikeSdl)) return readGraphqlContract(name, texts);
  return readRestTexts(name, texts, unobtainable);
}

const sdlEnding = /\.(graphql|gql|graphqls|sdl)$/i;
const dataEnding = /\.(json|ya?ml)$/i;
const sdlStart =
  /^(?:\s|\ufeff|#[^\n]*\n|"""[\s\S]*?"""|"[^"\n]*")*(?:extend\s+)?(?:schema|type|interface|union|enum|input|scalar|directive)\b(?!\s*:)/;

function looksLikeSdl({ document, text }: SourceText): boolean {
  return sdlEnding.test(document) || (!dataEnding.test(document) && sdlStart.test(text));
}
