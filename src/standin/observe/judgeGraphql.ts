import {
  getOperationAST,
  getVariableValues,
  Kind,
  parse,
  validate,
  type DocumentNode,
  type FragmentDefinitionNode,
  type GraphQLSchema,
  type OperationDefinitionNode,
} from "graphql";
import { isData, type Data } from "../../core/text/parseData.js";
import { checkGraphqlAnswer } from "./checkGraphqlAnswer.js";
import type { Judgement, SeenExchange } from "./exchange.js";

/** Checks a request and its response with a schema; undefined if it is not GraphQL. */
export type JudgeGraphql = (exchange: SeenExchange) => Judgement | undefined;

const keptDocuments = 500;

/**
 * Creates a checker for a schema: of documents and variables in requests, and of data in responses.
 *
 * @param texts the texts of the operations with an id
 */
export function graphqlJudge(schema: GraphQLSchema, texts?: ReadonlyMap<string, string>): JudgeGraphql {
  const documents = new Map<string, { document?: DocumentNode; errors: readonly string[] }>();
  const read = (query: string): { document?: DocumentNode; errors: readonly string[] } => {
    const known = documents.get(query) ?? readDocument(schema, query);
    documents.set(query, known);
    const [oldest] = documents.keys();
    if (documents.size > keptDocuments && oldest !== undefined) documents.delete(oldest);
    return known;
  };
  return (exchange) => {
    const asked = askedBy(exchange, texts);
    if (!asked) return undefined;
    if (asked.query === undefined)
      return {
        operation: undefined,
        disagreements: [],
        unjudged: ["the request has an id that no SDK here knows"],
      };
    const { document, errors } = read(asked.query);
    const operation = document && getOperationAST(document, asked.operationName);
    if (!document || errors.length > 0 || !operation) {
      const said = errors.length > 0 ? errors : ["the document has no operation with that name"];
      return {
        operation: operation ? labelOf(operation) : undefined,
        disagreements: said.map((each) => `request: ${each}`),
        unjudged: [],
      };
    }
    const wrong = wrongVariables(schema, operation, asked.variables);
    return {
      operation: labelOf(operation),
      ...joined(wrong, judgeAnswer(exchange, { schema, document, operation, variables: asked.variables })),
    };
  };
}

function joined(asks: readonly string[], answer: Pick<Judgement, "disagreements" | "unjudged">) {
  return { disagreements: [...asks, ...answer.disagreements], unjudged: answer.unjudged };
}

interface AskedQuery {
  readonly query: string | undefined;
  readonly operationName: string | undefined;
  readonly variables: Data;
}

function askedBy(
  { method, url, requestBody, requestHeader }: SeenExchange,
  texts: ReadonlyMap<string, string> | undefined,
): AskedQuery | undefined {
  const isForm = requestHeader("content-type")?.startsWith("multipart/") === true;
  const body =
    method === "GET" ? Object.fromEntries(url.searchParams) : isForm ? operationsOf(requestBody) : json(requestBody);
  if (!isData(body)) return undefined;
  const { operationName, variables, documentId } = body;
  const query = body["query"] ?? (typeof documentId === "string" ? texts?.get(documentId) : undefined);
  const isById =
    query === undefined &&
    (typeof body["id"] === "string" || typeof documentId === "string" || isData(body["extensions"]));
  if (typeof query !== "string" && !isById) return undefined;
  const given = typeof variables === "string" ? json(variables) : variables;
  return {
    query: typeof query === "string" ? query : undefined,
    operationName: typeof operationName === "string" ? operationName : undefined,
    variables: isData(given) ? given : {},
  };
}

/** The part of a form with files that contains the request. */
function operationsOf(body: string | undefined): unknown {
  const found = /name="operations"\r?\n(?:[^\r\n]+\r?\n)*\r?\n([^]*?)\r?\n--/.exec(body ?? "");
  return json(found?.[1]);
}

function json(text: string | undefined): unknown {
  if (text === undefined) return undefined;
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

function readDocument(schema: GraphQLSchema, query: string): { document?: DocumentNode; errors: readonly string[] } {
  try {
    const document = parse(query);
    return { document, errors: validate(schema, document).map(({ message }) => message) };
  } catch (error) {
    return { errors: [error instanceof Error ? error.message : String(error)] };
  }
}

/** Values are never shown, because they may be anything. */
function wrongVariables(
  schema: GraphQLSchema,
  { variableDefinitions }: OperationDefinitionNode,
  variables: Data,
): string[] {
  const { errors } = getVariableValues(schema, variableDefinitions ?? [], variables);
  return (errors ?? []).map(({ message }) => `request: ${withoutValues(message)}`);
}

function withoutValues(message: string): string {
  return message
    .replace(/got invalid value [^]*?(?=; |$)/, "got an invalid value")
    .replace(/(cannot represent [^:]*): [^]*$/, "$1")
    .replace(/Value "[^"]*"/, "The value");
}

function labelOf({ operation, name }: OperationDefinitionNode): string {
  return `${operation} ${name?.value ?? "(without a name)"}`;
}

interface AnswerOf {
  readonly schema: GraphQLSchema;
  readonly document: DocumentNode;
  readonly operation: OperationDefinitionNode;
  readonly variables: Data;
}

function judgeAnswer(
  { answerBody, answerHeader, status }: SeenExchange,
  { schema, document, operation, variables }: AnswerOf,
): Pick<Judgement, "disagreements" | "unjudged"> {
  const where = `response ${String(status)}`;
  if (answerBody === undefined) return { disagreements: [], unjudged: ["the response body was not recorded"] };
  const isEvents = answerHeader("content-type")?.startsWith("text/event-stream") === true;
  const texts = isEvents ? [...answerBody.matchAll(/^data: ?(\{.*)$/gm)].map(([, text]) => text ?? "") : [answerBody];
  const root = schema.getRootType(operation.operation);
  const fragments = new Map(
    document.definitions
      .filter((each): each is FragmentDefinitionNode => each.kind === Kind.FRAGMENT_DEFINITION)
      .map((each) => [each.name.value, each]),
  );
  const disagreements = texts.flatMap((text) => {
    const parsed = json(text);
    if (!isData(parsed)) return status >= 500 ? [] : [`${where}: is not a JSON object`];
    const { data, errors } = parsed;
    if (data === undefined && errors === undefined) return [`${where}: has neither data nor errors`];
    if (errors !== undefined && !Array.isArray(errors)) return [`${where}: errors must be a list`];
    if (data === undefined || (data === null && errors !== undefined) || !root) return [];
    const failed = (errors ?? []).flatMap((each) => pathOf(each));
    const context = { schema, fragments, failed, variables };
    return checkGraphqlAnswer(operation, root, { data, context }).map((message) => `${where} ${message}`);
  });
  return { disagreements: [...new Set(disagreements)], unjudged: [] };
}

/** The path of an error in the form of the walk's paths: all items of lists are the same. */
function pathOf(error: unknown): string[] {
  const path = isData(error) ? error["path"] : undefined;
  if (!Array.isArray(path)) return [];
  return [`/data/${path.map((step) => (typeof step === "number" ? "*" : String(step))).join("/")}`];
}
