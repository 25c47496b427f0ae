import type { Shape } from "../../contract/model.js";
import { typeNameFrom } from "../../sdk/nameScope.js";
import { sortedBy } from "../../text/sortedBy.js";
import { quoted } from "./escape.js";
import type { OwnFormat, TypescriptSettings } from "./settings.js";

/** How values are told apart from what is on the wire, as the settings want it. */
export interface Formats {
  readonly dates: boolean;
  readonly int64: "number" | "bigint" | "text";
  readonly own: ReadonlyMap<string, OwnFormat>;
  readonly openChoices: boolean;
}

/** What a printer is told beside identifiers: the kinds of imports that a text needs. */
export const usesFormats = " formats";
export const usesFormatValues = " format values";
export const usesConversion = " conversion";
export const usesCheck = " check";
export const usesWire = " wire";

/** Everything as it is on the wire. */
export const plainFormats: Formats = { dates: false, int64: "number", own: new Map(), openChoices: false };

export function formatsOf(settings: Omit<TypescriptSettings, "imports"> = {}): Formats {
  return {
    dates: settings.dates === "decoded",
    int64: settings.int64 ?? "number",
    own: new Map(sortedBy(Object.entries(settings.formats ?? {}), ([format]) => format)),
    openChoices: settings.choices === "open",
  };
}

/** A leaf that is another type in the app than on the wire. */
export interface ConvertedLeaf {
  /** As the SDK's modules write it. */
  readonly type: string;
  /** The conversion, as `conversions.ts` and the calls write it. */
  readonly conversion: string;
  /** Needs numbers to be read with all their digits. */
  readonly isExact: boolean;
  /** Comes from the SDK's `formats.ts`. */
  readonly isOwn: boolean;
}

/** What the settings make of a text or number; undefined when it stays as it is. */
export function convertedLeaf(shape: Shape, formats: Formats): ConvertedLeaf | undefined {
  if (shape.kind !== "text" && shape.kind !== "integer" && shape.kind !== "number") return undefined;
  const { format } = shape;
  if (format === undefined) return undefined;
  if (formats.own.has(format)) {
    const names = ownNames(format);
    const conversion = `formats.${names.conversion}`;
    return { type: `formats.${names.type}`, conversion, isExact: false, isOwn: true };
  }
  if (shape.kind === "text" && format === "date-time" && formats.dates)
    return { type: "Date", conversion: "wire.dates", isExact: false, isOwn: false };
  if (shape.kind === "integer" && format === "int64" && formats.int64 !== "number") {
    return formats.int64 === "bigint"
      ? { type: "bigint", conversion: "wire.bigints", isExact: true, isOwn: false }
      : { type: "string", conversion: "wire.integerTexts", isExact: true, isOwn: false };
  }
  return undefined;
}

function ownNames(format: string): { type: string; conversion: string } {
  const name = typeNameFrom(format);
  return { type: name, conversion: `convert${name}` };
}

/** The module that brings the app's own types and functions into the SDK; "" when there are none. */
export function printFormats(formats: Formats, wireModule: string): string {
  if (formats.own.size === 0) return "";
  const rows = [...formats.own].map(([format, { type, from, decode, encode }]) => {
    const names = ownNames(format);
    const functions = [...new Set([decode, encode])].map(
      (each) => `${each} as ${names.conversion}${each === decode ? "Decode" : "Encode"}`,
    );
    const [decoder, encoder] = [
      `${names.conversion}Decode`,
      `${names.conversion}${encode === decode ? "Decode" : "Encode"}`,
    ];
    return {
      imports: `import { ${functions.join(", ")} } from ${quoted(from)};`,
      exports: `/** What the app makes of the format \`${format.replaceAll("*/", "* /")}\`. */\nexport type { ${type} as ${names.type} } from ${quoted(from)};\nexport const ${names.conversion}: wire.Conversion = wire.custom(${decoder}, ${encoder});\n`,
    };
  });
  return `${[`import * as wire from ${quoted(wireModule)};`, ...rows.map((row) => row.imports)].join("\n")}\n\n${rows.map((row) => row.exports).join("\n")}`;
}
