import { sortedBy } from "../../../src/core/text/sortedBy.js";
import { fieldWords, typeWords } from "../../../src/core/sdk/lower/documentation.js";
import { choiceNames, memberNames, unionNames } from "../../../src/core/sdk/lower/values/partNames.js";
import { tellApart } from "../../../src/core/sdk/lower/values/tellApart.js";
import type { PlannedType } from "../../../src/core/sdk/sdkPlan.js";
import { toyName } from "./names.js";
import { toyComment, toyText, toyType, type ToySpelling } from "./spelling.js";

/** Prints the types of a contract. */
export function printTypes(spelling: ToySpelling): string {
  const types = sortedBy(spelling.contract.types.values(), ({ id }) => spelling.types.get(id) ?? "");
  return types.map((type) => toyComment(typeWords(type, false), "") + declaration(type, spelling)).join("\n");
}

function declaration(type: PlannedType, spelling: ToySpelling): string {
  const name = spelling.types.get(type.id) ?? "";
  const { shape } = type;
  const { settings, types } = spelling.contract;
  switch (shape.kind) {
    case "record": {
      const members = memberNames(shape.fields);
      const rows = shape.fields.map((field) => {
        const absent = field.required ? "" : " optional";
        const member = `  ${toyName(members.get(field) ?? "")} = ${toyText(field.name)} ${toyType(field.type, spelling)}`;
        return `${toyComment(fieldWords(field), "  ")}${member}${absent}\n`;
      });
      return `record ${name}\n${rows.join("")}`;
    }
    case "choice": {
      const names = choiceNames(shape.values);
      const rows = shape.values.map(
        (value) => `  ${toyName(names.get(value) ?? "")} = ${toyText(String(value.value))}\n`,
      );
      return `choice ${name} ${settings.choices}\n${rows.join("")}`;
    }
    case "union": {
      const names = unionNames(shape, types);
      const telling = tellApart(shape, types);
      const row = (at: number, how: string): string => {
        const member = shape.members[at];
        return member ? `  ${toyName(names.get(member) ?? "")} ${toyType(member, spelling)} ${how}\n` : "";
      };
      if (telling.by === "tag")
        return `union ${name} by ${toyText(telling.field)}\n${telling.rows.map(({ value, at }) => row(at, `when ${toyText(value)}`)).join("")}`;
      return `union ${name}\n${telling.forms.map(({ at, kind, needs }) => row(at, `if ${[kind, ...needs].join(" with ")}`)).join("")}`;
    }
    default:
      return `type ${name} ${toyType({ shape, nullable: false }, spelling)}\n`;
  }
}
