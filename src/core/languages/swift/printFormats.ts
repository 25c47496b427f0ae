import { pascalCase } from "../../text/words.js";
import type { ContractContext } from "./contractContext.js";
import { comment } from "./escape.js";
import { fileText } from "./swiftFile.js";

/** The namespace that stands for a format of the app's own, outside of everything that a contract names. */
export function formatName(format: string, { space }: ContractContext): string {
  return `${space}${pascalCase(format) || "Own"}Format`;
}

/** What the members of such a namespace are called: nothing of the app's that they lead to, which they would hide. */
export function formatMembers(format: string, { formats }: ContractContext) {
  const { type = "", decode = "", encode = "" } = formats[format] ?? {};
  const taken = [type, decode, encode].map((name) => name.split(".")[0]);
  const free = (name: string): string => (taken.includes(name) ? free(`${name}Here`) : name);
  return {
    type: free("Value"),
    decode: free("decode"),
    encode: free("encode"),
    value: free("value"),
    text: free("text"),
  };
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
    const { value, text, ...names } = formatMembers(format, context);
    if (from !== undefined) modules.push(from);
    const access = context.access;
    return [
      `${comment("", `What stands for the format ${JSON.stringify(format)}.`)}${access}enum ${formatName(format, context)} {\n` +
        `  ${access}typealias ${names.type} = ${type}\n\n` +
        `  static func ${names.decode}(_ ${text}: Swift.String) throws -> ${names.type} { try ${decode}(${text}) }\n\n` +
        `  static func ${names.encode}(_ ${value}: ${names.type}) -> Swift.String { ${encode}(${value}) }\n}\n`,
    ];
  });
  return parts.length === 0 ? "" : fileText(parts, modules);
}
