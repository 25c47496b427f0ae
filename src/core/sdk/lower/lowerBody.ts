import type { Content } from "../../contract/model.js";
import type { PlannedArgument } from "../sdkPlan.js";
import type { Conversions } from "./values/conversion.js";
import type { BodyWay, BodyWriter, FormField } from "./request.js";

/** Returns the ways to send a body, the default one first. */
export function bodyWays(argument: PlannedArgument, conversions: Conversions): BodyWay[] {
  if (argument.source.kind !== "body") return [];
  const { content, others } = argument.source;
  return [{ content, type: argument.type }, ...others].map(({ content, type }) => {
    const encode = conversions.of(type);
    return {
      mediaType: content.mediaType,
      type,
      value: { argument, ...(encode ? { encode } : {}) },
      writer: writerOf(content, conversions.needsExact(type)),
    };
  });
}

function writerOf({ form, mediaType, encoding }: Content, isExact: boolean): BodyWriter {
  switch (form) {
    case "json": {
      const isUsual = mediaType === "application/json" || mediaType.includes("*");
      return { kind: "json", mediaType: isUsual ? undefined : mediaType, isExact };
    }
    case "urlencoded":
    case "multipart":
      return { kind: form, fields: formFields(encoding, form) };
    case "events":
    case "lines":
    case "sequence":
      return { kind: "items", form, mediaType };
    case "text":
      return { kind: "text", mediaType };
    case "bytes":
      return { kind: "bytes", mediaType: mediaType.includes("*") ? "application/octet-stream" : mediaType };
  }
}

/** If a part may have several media types, the runtime chooses by its value. Parts of a form have no style. */
function formFields(encoding: Content["encoding"], form: "urlencoded" | "multipart"): FormField[] {
  return [...(encoding ?? [])].flatMap(([name, { contentType, style, explode }]) => {
    const field: FormField = {
      name,
      ...(contentType !== undefined && !contentType.includes(",") ? { mediaType: contentType } : {}),
      ...(form === "urlencoded" && style !== undefined && style !== "form" ? { style } : {}),
      ...(form === "urlencoded" && explode !== undefined ? { explode } : {}),
    };
    return Object.keys(field).length > 1 ? [field] : [];
  });
}
