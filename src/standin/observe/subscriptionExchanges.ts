import { isData, type Data } from "../../core/text/parseData.js";
import type { SeenExchange } from "./exchange.js";

/** The number of subscriptions of one socket that are followed. Others are passed on unchecked. */
const mostFollowed = 1_000;

/**
 * Creates requests and responses from the messages of one socket with `graphql-transport-ws`: every event with its
 * subscription.
 *
 * @param url the address of the backend
 */
export function subscriptionExchanges(
  url: URL,
  onExchange: (exchange: SeenExchange) => void,
): { readonly fromApp: (text: string) => void; readonly fromBackend: (text: string) => void } {
  const asked = new Map<string, Data>();
  return {
    fromApp: (text) => {
      const { id, type, payload } = messageOf(text);
      if (typeof id !== "string") return;
      if (type === "subscribe" && isData(payload) && asked.size < mostFollowed) asked.set(id, payload);
      else if (type === "complete") asked.delete(id);
    },
    fromBackend: (text) => {
      const { id, type, payload } = messageOf(text);
      const question = typeof id === "string" ? asked.get(id) : undefined;
      if (typeof id !== "string" || !question) return;
      if (type === "complete" || type === "error") asked.delete(id);
      if (type !== "next" && type !== "error") return;
      const answer = type === "error" ? { errors: payload } : payload;
      onExchange({
        method: "WS",
        url,
        requestHeader: jsonHeader,
        requestBody: JSON.stringify(question),
        status: 200,
        answerHeader: jsonHeader,
        answerBody: JSON.stringify(answer),
      });
    },
  };
}

function jsonHeader(name: string): string | undefined {
  return name === "content-type" ? "application/json" : undefined;
}

function messageOf(text: string): Data {
  try {
    const data: unknown = JSON.parse(text);
    return isData(data) ? data : {};
  } catch {
    return {};
  }
}
