import { parseAccept } from "hono/utils/accept";

/** The media types of GraphQL responses. */
export type GraphqlMedia = "application/graphql-response+json" | "application/json" | "text/event-stream";

const offered: readonly GraphqlMedia[] = ["application/graphql-response+json", "application/json", "text/event-stream"];

/**
 * Returns the media type for a response (GraphQL over HTTP, section 6.1; RFC 9110, section 12.5.1); undefined if the
 * request accepts none of them. A request that accepts anything gets plain JSON.
 *
 * @param accept the header `Accept`
 */
export function wantedMedia(accept: string | null): GraphqlMedia | undefined {
  if (accept === null || accept.trim() === "") return "application/json";
  for (const { type, q } of parseAccept(accept)) {
    if (q === 0) continue;
    if (type === "*/*" || type === "application/*") return "application/json";
    const found = offered.find((each) => each === type.toLowerCase());
    if (found) return found;
  }
  return undefined;
}

/** Returns whether a request accepts a stream of events. */
export function takesEvents(accept: string | null): boolean {
  return accept === null || /text\/event-stream|\*\/\*|text\/\*/i.test(accept);
}
