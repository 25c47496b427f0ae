import type { Shape } from "../../../contract/model.js";
import type { SharedSettings } from "../sharedSettings.js";

/** What a text or a number becomes in the app, where it does not stay what is on the wire. */
export type DecodedLeaf =
  | { readonly kind: "instant" }
  /** A 64-bit integer that keeps all its digits. */
  | { readonly kind: "integer"; readonly as: "bigint" | "text" }
  /** A type of the app's own. */
  | { readonly kind: "own"; readonly format: string };

/** The settings that decide what is decoded. */
export type DecodingSettings = Pick<SharedSettings, "dates" | "int64" | "ownFormats">;

/** Everything as it is on the wire. */
export const nothingDecoded: DecodingSettings = { dates: "text", int64: "number", ownFormats: new Set() };

/** What the settings make of a text or number; undefined when it stays as it is. */
export function decodedLeaf(shape: Shape, settings: DecodingSettings): DecodedLeaf | undefined {
  if (shape.kind !== "text" && shape.kind !== "integer" && shape.kind !== "number") return undefined;
  const { format } = shape;
  if (format === undefined) return undefined;
  if (settings.ownFormats.has(format)) return { kind: "own", format };
  if (shape.kind === "text" && format === "date-time" && settings.dates === "decoded") return { kind: "instant" };
  if (shape.kind === "integer" && format === "int64" && settings.int64 !== "number")
    return { kind: "integer", as: settings.int64 };
  return undefined;
}
