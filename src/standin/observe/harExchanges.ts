import { dataMember, isData, listMember, parseData, textMember, type Data } from "../../core/text/parseData.js";
import type { SeenExchange } from "./exchange.js";

/**
 * Reads recorded traffic (HTTP Archive 1.2), in order.
 *
 * @returns undefined if the text is not such a recording
 */
export function harExchanges(text: string): SeenExchange[] | undefined {
  const parsed = parseData(text);
  const log = parsed.ok && isData(parsed.data) ? dataMember(parsed.data, "log") : undefined;
  const entries = log && listMember(log, "entries");
  return entries?.flatMap((entry) => {
    const exchange = isData(entry) ? exchangeOf(entry) : undefined;
    return exchange ? [exchange] : [];
  });
}

function exchangeOf(entry: Data): SeenExchange | undefined {
  const request = dataMember(entry, "request");
  const response = dataMember(entry, "response");
  const address = request && textMember(request, "url");
  const status = response?.["status"];
  // A status of 0 means that there was no response.
  if (
    !request ||
    !response ||
    address === undefined ||
    !URL.canParse(address) ||
    typeof status !== "number" ||
    status < 100
  )
    return undefined;
  const posted = dataMember(request, "postData");
  const hasBody = posted !== undefined || Number(request["bodySize"] ?? 0) > 0;
  return {
    method: (textMember(request, "method") ?? "GET").toUpperCase(),
    url: new URL(address),
    requestHeader: headerOf(request),
    requestBody: posted ? postedText(posted) : hasBody ? undefined : "",
    status,
    answerHeader: headerOf(response),
    answerBody: answered(response),
  };
}

/** Forms may be recorded only by their fields. */
function postedText(posted: Data): string | undefined {
  const text = textMember(posted, "text");
  if (text !== undefined && text !== "") return text;
  const fields = (listMember(posted, "params") ?? []).filter(isData);
  if (fields.length === 0) return text;
  if (textMember(posted, "mimeType")?.includes("urlencoded") !== true) return undefined;
  return new URLSearchParams(
    fields.map((each): [string, string] => [textMember(each, "name") ?? "", textMember(each, "value") ?? ""]),
  ).toString();
}

function headerOf(message: Data): (name: string) => string | undefined {
  const headers = new Map(
    (listMember(message, "headers") ?? [])
      .filter(isData)
      .map((each) => [(textMember(each, "name") ?? "").toLowerCase(), textMember(each, "value") ?? ""]),
  );
  return (name) => headers.get(name.toLowerCase());
}

function answered(response: Data): string | undefined {
  const content = dataMember(response, "content");
  const text = content && textMember(content, "text");
  if (!content || text === undefined) return Number(content?.["size"] ?? 0) > 0 ? undefined : "";
  if (textMember(content, "encoding") !== "base64") return text;
  const isText = /json|text|xml|graphql/.test(textMember(content, "mimeType") ?? "");
  return isText ? new TextDecoder().decode(Uint8Array.from(atob(text), (each) => each.charCodeAt(0))) : undefined;
}
