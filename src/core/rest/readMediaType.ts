import type { MediaForm } from "../contract/model.js";

const jsonTypes = new Set(["application/json", "text/json", "*/*", "application/*"]);
const lineTypes = new Set([
  "application/jsonl",
  "application/x-ndjson",
  "application/ndjson",
  "application/x-jsonlines",
]);

/** Returns how the body of a media type is written and read (RFC 6838; structured suffixes RFC 6839). */
export function mediaForm(mediaType: string): MediaForm {
  // Nearly all bodies have this type.
  return mediaType === "application/json" ? "json" : formOf(mediaType);
}

function formOf(mediaType: string): MediaForm {
  const [name = "", ...parameters] = mediaType.toLowerCase().split(";");
  const type = name.trim();
  if (jsonTypes.has(type) || type.endsWith("+json")) {
    return parameters.some((parameter) => /^\s*stream\s*=/.test(parameter)) ? "lines" : "json";
  }
  if (type === "application/x-www-form-urlencoded") return "urlencoded";
  if (type.startsWith("multipart/")) return "multipart";
  if (type === "text/event-stream") return "events";
  if (lineTypes.has(type)) return "lines";
  if (type === "application/json-seq" || type.endsWith("+json-seq")) return "sequence";
  if (type.startsWith("text/") || type === "application/xml" || type.endsWith("+xml")) return "text";
  return "bytes";
}
