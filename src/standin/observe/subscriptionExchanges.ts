import { isData, type Data } from "../../core/text/parseData.js";
import type { SeenExchange } from "./exchange.js";

/** How many subscriptions of one socket are followed; what comes beyond is passed on unseen. */
const mostFollowed = 1_000;

/**
 * Makes exchanges of what goes over one socket that speaks `graphql-transport-ws`: every event, with the subscription
 * that asked for it.
 *
 * @param url of the backend
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
