import type { Shape } from "../../../contract/model.js";
import { typeNameFrom } from "../../../sdk/nameScope.js";
import { decodedLeaf, type DecodedLeaf, type DecodingSettings } from "../../../sdk/lower/values/decodedLeaf.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { quoted } from "../names/escape.js";
import type { OwnFormat } from "../settings.js";

/** Returns the app's type of a decoded leaf, as the SDK's modules write it. */
export function leafType(leaf: DecodedLeaf): string {
  switch (leaf.kind) {
    case "instant":
      return "Date";
    case "integer":
      return leaf.as === "bigint" ? "bigint" : "string";
    case "own":
      return `formats.${ownNames(leaf.format).type}`;
  }
}

/** Returns the conversion of a decoded leaf, as the SDK's modules write it. */
export function leafConversion(leaf: DecodedLeaf): string {
  switch (leaf.kind) {
    case "instant":
      return "wire.dates";
    case "integer":
      return leaf.as === "bigint" ? "wire.bigints" : "wire.integerTexts";
    case "own":
      return `formats.${ownNames(leaf.format).conversion}`;
  }
}

/** Returns the decoded type of a string or number; undefined if it stays as it is. */
export function decodedType(shape: Shape, settings: DecodingSettings): string | undefined {
  const leaf = decodedLeaf(shape, settings);
  return leaf && leafType(leaf);
}

function ownNames(format: string): { type: string; conversion: string } {
  const name = typeNameFrom(format);
  return { type: name, conversion: `convert${name}` };
}

/**
 * Prints the module with the app's own types and functions; "" if there are none.
 *
 * @param formats the app's own types by format, with modules as the SDK's folder sees them
 */
export function printFormats(formats: Readonly<Record<string, OwnFormat>>, wireModule: string): string {
  const sorted = sortedBy(Object.entries(formats), ([format]) => format);
  if (sorted.length === 0) return "";
  const rows = sorted.map(([format, { type, from, decode, encode }]) => {
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
      exports: `/** The app's type for the format \`${format.replaceAll("*/", "* /")}\`. */\nexport type { ${type} as ${names.type} } from ${quoted(from)};\nexport const ${names.conversion}: wire.Conversion = wire.custom(${decoder}, ${encoder});\n`,
    };
  });
  return `${[`import * as wire from ${quoted(wireModule)};`, ...rows.map((row) => row.imports)].join("\n")}\n\n${rows.map((row) => row.exports).join("\n")}`;
}
