import type { GraphQLSchema } from "graphql";
import type { Contract } from "./contract/model.js";
import { readGraphqlContract } from "./graphql/readGraphqlContract.js";
import type { SourceText } from "./problem/place.js";
import { problem, type Problem } from "./problem/problem.js";
import { readRestContract } from "./rest/readRestContract.js";
import { isData, parseData } from "./text/parseData.js";

export interface ContractReading {
  /** Absent when nothing is readable; then the problems say why. */
  readonly contract?: Contract;
  /** GraphQL only: what query documents are checked and typed against. */
  readonly schema?: GraphQLSchema;
  /** REST only: the document as parsed data. */
  readonly raw?: unknown;
  readonly problems: readonly Problem[];
}

/**
 * Reads the texts of one contract, whichever protocol they turn out to be.
 *
 * @param name the contract's name in the configuration
 * @param texts one text for REST, one or many for GraphQL; line ends as they are
 */
export function readContract(name: string, texts: readonly SourceText[]): ContractReading {
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
  return readDescription(name, first, texts.length);
}

const sdlEnding = /\.(graphql|gql|graphqls|sdl)$/i;
const dataEnding = /\.(json|ya?ml)$/i;
const sdlStart =
  /^(?:\s|\ufeff|#[^\n]*\n|"""[\s\S]*?"""|"[^"\n]*")*(?:extend\s+)?(?:schema|type|interface|union|enum|input|scalar|directive)\b(?!\s*:)/;

function looksLikeSdl({ document, text }: SourceText): boolean {
  return sdlEnding.test(document) || (!dataEnding.test(document) && sdlStart.test(text));
}

function readDescription(name: string, { document, text }: SourceText, count: number): ContractReading {
  const parsed = parseData(text);
  if (!parsed.ok) {
    const place = { document, offset: parsed.offset, length: 1 };
    return {
      problems: [
        problem("contract.syntax", `The contract \`${name}\` is not valid YAML or JSON: ${parsed.message}.`, { place }),
      ],
    };
  }
  const { data } = parsed;
  if (!isData(data) || !("openapi" in data || "swagger" in data)) {
    const introspection = isData(data) && ("__schema" in data || (isData(data["data"]) && "__schema" in data["data"]));
    const hint = introspection
      ? "It is a GraphQL introspection result, which is not read yet; use the schema as text."
      : "An OpenAPI description has `openapi` at its top; a GraphQL schema has type definitions.";
    return {
      problems: [
        problem("contract.kind", `\`${document}\` is neither an OpenAPI description nor a GraphQL schema.`, {
          place: { document, pointer: "" },
          hint,
        }),
      ],
    };
  }
  if (count > 1) {
    const message = `The contract \`${name}\` is made of ${String(count)} files, and REST contracts are read from one file so far.`;
    return { problems: [problem("config.later", message, { hint: "Bundle the description into one file." })] };
  }
  return { ...readRestContract(name, document, data), raw: data };
}
