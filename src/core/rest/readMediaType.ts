import type { Content } from "../contract/model.js";

/** How the bytes of a media type are written and read (RFC 6838; structured suffixes RFC 6839). */
export function mediaForm(mediaType: string): Content["form"] {
  const type = (mediaType.split(";")[0] ?? "").trim().toLowerCase();
  if (
    type === "application/json" ||
    type.endsWith("+json") ||
    type === "text/json" ||
    type === "*/*" ||
    type === "application/*"
  )
    return "json";
  if (type === "application/x-www-form-urlencoded") return "urlencoded";
  if (type.startsWith("multipart/")) return "multipart";
  if (
    type === "text/event-stream" ||
    type === "application/jsonl" ||
    type === "application/x-ndjson" ||
    type === "application/json-seq"
  )
    return "events";
  if (type.startsWith("text/") || type === "application/xml" || type.endsWith("+xml")) return "text";
  return "bytes";
}
