import type { Shape } from "../../../contract/model.js";
import type { SharedSettings } from "../sharedSettings.js";

/** The app's type for a string or a number, if it differs from JSON. */
export type DecodedLeaf =
  | { readonly kind: "instant" }
  /** A 64-bit integer with all its digits. */
  | { readonly kind: "integer"; readonly as: "bigint" | "text" }
  /** A type of the app's own. */
  | { readonly kind: "own"; readonly format: string };

/** The settings that decide which values are decoded. */
export type DecodingSettings = Pick<SharedSettings, "dates" | "int64" | "ownFormats">;

/** Every value stays as in JSON. */
export const nothingDecoded: DecodingSettings = { dates: "text", int64: "number", ownFormats: new Set() };

/** Returns the app's type for a string or number; undefined if it stays as in JSON. */
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
