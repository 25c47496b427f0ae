import { NameScope } from "../../../sdk/nameScope.js";
import { pascalCase } from "../../../text/words.js";
import type { ContractContext } from "../contractContext.js";
import { comment } from "../names/escape.js";
import { freeName } from "../names/freeName.js";
import { fileText } from "../swiftFile.js";

const known = new WeakMap<ContractContext["formats"], ReadonlyMap<string, string>>();

/** Returns the namespace for a format of the app's own, outside of all names of a contract. */
export function formatName(format: string, { formats, space }: ContractContext): string {
  const names = known.get(formats) ?? namesOf(formats);
  known.set(formats, names);
  return `${space}${names.get(format) ?? "Own"}Format`;
}

/** Formats may differ only in characters that names cannot have. */
function namesOf(formats: ContractContext["formats"]): ReadonlyMap<string, string> {
  const scope = new NameScope();
  return new Map(
    Object.keys(formats)
      .sort()
      .map((format) => [format, scope.claim(pascalCase(format) || "Own", format)]),
  );
}

/** Returns the names of such a namespace's members. They must not hide the app's own names that they lead to. */
export function formatMembers(format: string, { formats }: ContractContext) {
  const { type = "", decode = "", encode = "" } = formats[format] ?? {};
  const taken = [type, decode, encode].map((name) => name.split(".", 1).join(""));
  return {
    type: freeName("Value", taken),
    decode: freeName("decode", taken),
    encode: freeName("encode", taken),
    value: freeName("value", taken),
    text: freeName("text", taken),
  };
}

/**
 * Prints the namespaces for the app's own types; "" if there are none. Inside a contract's namespace, the types' names
 * could mean something of the contract.
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
      `${comment("", `The app's type for the format ${JSON.stringify(format)}.`)}${access}enum ${formatName(format, context)} {\n` +
        `  ${access}typealias ${names.type} = ${type}\n\n` +
        `  static func ${names.decode}(_ ${text}: Swift.String) throws -> ${names.type} { try ${decode}(${text}) }\n\n` +
        `  static func ${names.encode}(_ ${value}: ${names.type}) -> Swift.String { ${encode}(${value}) }\n}\n`,
    ];
  });
  return parts.length === 0 ? "" : fileText(parts, modules);
}
