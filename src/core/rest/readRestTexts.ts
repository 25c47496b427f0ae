import type { SourceText } from "../problem/place.js";
import { problem, type Problem } from "../problem/problem.js";
import type { ContractReading } from "../contract/contractReading.js";
import { isData, parseData, type Data } from "../text/parseData.js";
import { linkDocuments, needsLinking } from "./linkDocuments.js";
import { readRestContract } from "./readRestContract.js";

interface ParsedText extends SourceText {
  readonly data: unknown;
}

/**
 * Reads the texts of a REST contract: the OpenAPI document, and the documents it refers to, as far as they are
 * available.
 *
 * @param unobtainable why documents that an earlier reading wanted are not available
 */
export function readRestTexts(
  name: string,
  texts: readonly SourceText[],
  unobtainable: ReadonlyMap<string, string>,
): ContractReading {
  const parsed: ParsedText[] = [];
  const broken: Problem[] = [];
  const failed = new Map(unobtainable);
  for (const source of texts) {
    const result = parseData(source.text);
    if (result.ok) parsed.push({ ...source, data: result.data });
    else {
      const place = { document: source.document, offset: result.offset, length: 1 };
      const message = `\`${source.document}\` is not valid YAML or JSON: ${result.message}.`;
      broken.push(problem("contract.syntax", message, { place }));
      failed.set(baseOf(source), "is not valid YAML or JSON");
    }
  }
  const roots = parsed.filter(({ data }) => isDescription(data));
  const [root] = roots;
  if (!root) return { problems: broken.length > 0 ? broken : [notADescription(parsed[0] ?? texts[0])] };
  const parts = parsed.filter((each) => each !== root);
  if (parts.length === 0 && !needsLinking(root.text)) {
    const source = {
      document: root.document,
      data: root.data as Data,
      names: { isLinked: false, unobtainable: failed },
    };
    return { ...readRestContract(name, source), raw: root.data };
  }
  const linked = linkDocuments(
    { document: root.document, base: baseOf(root), data: root.data },
    parts.map((part) => ({ document: part.document, base: baseOf(part), data: part.data })),
  );
  // One OpenAPI document may refer to another. If several are not referred to, the contract is ambiguous.
  const rivals = roots.filter(({ document }) => linked.unused.includes(document)).map(({ document }) => document);
  if (rivals.length > 0 && linked.wanted.every((each) => failed.has(each)))
    return { problems: [several(name, [root.document, ...rivals])] };
  const source = { document: root.document, data: linked.data, names: { isLinked: true, unobtainable: failed } };
  const reading = readRestContract(name, source);
  const problems = [...broken.map((each) => ({ ...each, level: "warning" as const })), ...reading.problems];
  return { ...reading, problems, raw: linked.data, wanted: linked.wanted.filter((each) => !failed.has(each)) };
}

function baseOf(source: SourceText): string {
  return source.base ?? source.document;
}

function isDescription(data: unknown): data is Data {
  return isData(data) && ("openapi" in data || "swagger" in data);
}

function several(name: string, documents: readonly string[]): Problem {
  const list = documents.map((document) => `\`${document}\``).join(", ");
  return problem("contract.several", `The contract \`${name}\` consists of several OpenAPI documents: ${list}.`, {
    hint: "Add a contract for each, or set `from` to one of them.",
  });
}

function notADescription(source: (SourceText & { readonly data?: unknown }) | undefined): Problem {
  const data = source?.data;
  const introspection = isData(data) && ("__schema" in data || (isData(data["data"]) && "__schema" in data["data"]));
  const hint = introspection
    ? "It is a GraphQL introspection result, which is not supported here. Use the schema as text."
    : "An OpenAPI document has `openapi` or `swagger` at the top. A GraphQL schema has type definitions.";
  const document = source?.document ?? "";
  const message = `\`${document}\` is neither an OpenAPI document nor a GraphQL schema.`;
  return problem("contract.kind", message, { place: { document, pointer: "" }, hint });
}
