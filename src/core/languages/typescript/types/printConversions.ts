import type { FieldConstants } from "../../../sdk/lower/values/tellApart.js";
import type { Conversion } from "../../../sdk/lower/values/conversion.js";
import type { LoweredContract } from "../../../sdk/lower/loweredSdk.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { literalKey, quoted } from "../names/escape.js";
import { leafConversion } from "./formats.js";
import { printLiteral, type TypePrinter } from "./printType.js";

type Names = Pick<TypePrinter, "names" | "uses">;

/** Prints the conversion of every planned type that needs one. */
export function printConversions({ conversions }: LoweredContract, printer: Names): string {
  const nameOf = (id: string): string => conversionName(printer.names.get(id) ?? "");
  return sortedBy(conversions, ({ type }) => printer.names.get(type.id) ?? type.id)
    .map(({ type, of }) => {
      const identifier = printer.names.get(type.id) ?? type.name;
      const own = spell(of, printer, nameOf);
      // The type of an alias may be declared further down.
      const text = type.shape.kind === "named" ? `wire.alias(() => ${own})` : own;
      return `/** Converts \`${identifier}\` between JSON and the app's types. */\nexport const ${conversionName(identifier)}: wire.Conversion = ${text};\n`;
    })
    .join("\n");
}

function conversionName(identifier: string): string {
  return `convert${identifier}`;
}

/** Returns a conversion as written outside of the module that declares those of types. */
export function conversionText(conversion: Conversion, printer: Names): string {
  return spell(conversion, printer, (id) => {
    printer.uses.module("conversions", true);
    return `conversions.${conversionName(printer.names.get(id) ?? "")}`;
  });
}

function spell(conversion: Conversion, printer: Names, nameOf: (id: string) => string): string {
  // Types may need each other, so their parts are looked up when they are needed.
  const later = (of: Conversion): string => `() => ${spell(of, printer, nameOf)}`;
  switch (conversion.kind) {
    case "leaf":
      if (conversion.leaf.kind === "own") printer.uses.module("formats", true);
      return leafConversion(conversion.leaf);
    case "type":
      return nameOf(conversion.id);
    case "list":
      return `wire.items(${later(conversion.item)})`;
    case "map":
      return `wire.fields({}, ${later(conversion.value)})`;
    case "tuple": {
      const items = conversion.items.map((item) => (item ? later(item) : "undefined"));
      return `wire.positions([${items.join(", ")}]${conversion.rest ? `, ${later(conversion.rest)}` : ""})`;
    }
    case "record": {
      const { fields, rest, declared } = conversion;
      if (fields.length === 0 && !rest) return "wire.fields({})";
      const rows = fields.map(({ name, of }) => `${literalKey(name)}: ${later(of)}`);
      const others = rest ? `, ${later(rest)}, [${declared.map(quoted).join(", ")}]` : "";
      return `wire.fields({ ${rows.join(", ")} }${others})`;
    }
    case "tagged": {
      const rows = conversion.rows.map(({ value, of }) => `${literalKey(value)}: ${later(of)}`);
      return `wire.tagged(${quoted(conversion.field)}, { ${rows.join(", ")} })`;
    }
    case "either": {
      const forms = conversion.forms.map(({ kind, values, needs, constants, of }) => {
        const parts = [
          `kind: ${quoted(kind)}`,
          ...(values ? [`values: [${values.map(printLiteral).join(", ")}]`] : []),
          ...(needs.length > 0 ? [`needs: [${needs.map(quoted).join(", ")}]`] : []),
          ...(constants ? [`where: { ${constants.map(constantsText).join(", ")} }`] : []),
          ...(of ? [`of: ${later(of)}`] : []),
        ];
        return `{ ${parts.join(", ")} }`;
      });
      return `wire.either(${forms.join(", ")})`;
    }
  }
}

function constantsText({ name, values }: FieldConstants): string {
  return `${literalKey(name)}: [${values.map(printLiteral).join(", ")}]`;
}
