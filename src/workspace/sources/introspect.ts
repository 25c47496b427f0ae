import { getIntrospectionQuery } from "graphql";
import { introspectedSchema, introspectionText } from "../../core/graphql/introspectionText.js";
import { problem } from "../../core/problem/problem.js";
import { fetchText, type Fetched, type FetchOptions } from "./fetchText.js";

/** The queries to send, from those for the newest servers to those for the oldest. */
const questions = [
  {
    specifiedByUrl: true,
    directiveIsRepeatable: true,
    schemaDescription: true,
    inputValueDeprecation: true,
    oneOf: true,
  },
  { specifiedByUrl: true, directiveIsRepeatable: true, schemaDescription: true, inputValueDeprecation: true },
  {},
];

/**
 * Requests the schema of a GraphQL server (GraphQL specification, section 4), with an older query if the server does
 * not understand the newer one.
 *
 * @param shown the address for messages
 * @returns the schema as text in the schema definition language, or why it is not available
 */
export async function introspect(address: string, shown: string, options: FetchOptions): Promise<Fetched> {
  let said: readonly string[] = [];
  for (const question of questions) {
    const query = getIntrospectionQuery(question);
    const fetched = await fetchText(address, shown, {
      ...options,
      body: JSON.stringify({ query, operationName: "IntrospectionQuery" }),
    });
    if ("problem" in fetched) return { ...fetched, problem: endpointProblem(fetched, shown) };
    if ("isSame" in fetched) return fetched;
    const answer = parsed(fetched.text);
    const schema = introspectedSchema(answer);
    if (schema) return { text: introspectionText(schema) };
    const messages = errorMessages(answer);
    if (messages === undefined) return failed(shown, "does not respond like a GraphQL server", wrongAddress);
    // The first refusal is for the query that was really wanted. The others are consequences of old queries.
    said = said.length > 0 ? said : messages;
    if (messages.some(isSwitchedOff)) break;
  }
  const [first = "it gives no reason"] = said;
  if (said.some(isSwitchedOff))
    return failed(
      shown,
      `does not allow introspection: ${sentence(first)}`,
      "Enable it for this URL or credential, or ask its authors for the schema as a file, and set `from` to the file.",
    );
  return failed(shown, `refuses introspection: ${sentence(first)}`, "Check `headers` of the contract and the address.");
}

const wrongAddress = "Use the URL for queries, which often ends in /graphql.";

/** The same failure, for an endpoint instead of a document. */
function endpointProblem(
  fetched: Extract<Fetched, { readonly problem: unknown }>,
  shown: string,
): typeof fetched.problem {
  const { problem: found, status } = fetched;
  if (status === 401 || status === 403 || status === undefined) return found;
  const message =
    status === 200
      ? `\`${shown}\` is a web page, not a GraphQL endpoint.`
      : `\`${shown}\` responds with ${String(status)} to an introspection query.`;
  return { ...found, message, hint: wrongAddress };
}

function isSwitchedOff(message: string): boolean {
  return (
    /introspection/i.test(message) &&
    /disabled|not allowed|forbidden|not enabled|turned off|denied|disallowed|unavailable|not supported|blocked/i.test(
      message,
    )
  );
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // The caller handles text that is not JSON, because it is not the response of a GraphQL server.
    return undefined;
  }
}

function errorMessages(answer: unknown): string[] | undefined {
  if (typeof answer !== "object" || answer === null) return undefined;
  const { errors, data } = answer as { errors?: unknown; data?: unknown };
  if (!Array.isArray(errors)) return data === undefined ? undefined : [];
  return errors.map((error: unknown) => {
    const message = typeof error === "object" && error !== null && "message" in error ? error.message : error;
    return typeof message === "string" ? message : "an error without a message";
  });
}

/** The beginning of a server's message, without characters that are not valid on a line. */
function sentence(message: string): string {
  const text = message
    .replace(/[\u0000-\u001f\u007f]+/g, " ")
    .trim()
    .replace(/\.$/, "");
  return text.length > 160 ? `${text.slice(0, 159)}…` : text;
}

function failed(shown: string, message: string, hint: string): Fetched {
  return { problem: problem("contract.fetch", `\`${shown}\` ${message}.`, { hint }) };
}
