import { pascalCase } from "../../text/words.js";
import type { ContractContext } from "./contractContext.js";
import { comment } from "./escape.js";
import { fileText } from "./swiftFile.js";

/** The namespace that stands for a format of the app's own, outside of everything that a contract names. */
export function formatName(format: string, { space }: ContractContext): string {
  return `${space}${pascalCase(format) || "Own"}Format`;
}

/**
 * Prints what stands for the types of the app's own: inside a contract's namespace their names could mean something of
 * the contract. "" where there are none.
 */
export function printFormats(context: ContractContext): string {
  const own = [...context.contract.settings.ownFormats].sort();
  const modules: string[] = [];
  const parts = own.flatMap((format) => {
    const said = context.formats[format];
    if (!said) return [];
    const { from, type, decode, encode } = said;
    if (from !== undefined) modules.push(from);
    const access = context.access;
    return [
      `${comment("", `What stands for the format ${JSON.stringify(format)}.`)}${access}enum ${formatName(format, context)} {\n` +
        `  ${access}typealias Value = ${type}\n\n` +
        `  static func decode(_ text: Swift.String) throws -> Value { try ${decode}(text) }\n\n` +
        `  static func encode(_ value: Value) -> Swift.String { ${encode}(value) }\n}\n`,
    ];
  });
  return parts.length === 0 ? "" : fileText(parts, modules);
}
