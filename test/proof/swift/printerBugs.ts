import type { calledKinds } from "../../languages/vectors/vectorSteps.js";
import type { Bug } from "../planted/bugs.js";

/** What must find a bug: the rows of a kind, or the compiler with some contracts. */
export type Finder =
  | { readonly rows: (typeof calledKinds)[number] }
  | { readonly contracts: "hostile names" | "random" | "random queries" };

/** A bug in the printer of Swift, with what must find it. */
export type PrinterBug = Omit<Bug, "seeds" | "byLint"> & { readonly by: Finder };

const folder = "languages/swift";

export const printerBugs: readonly PrinterBug[] = [
  {
    name: "nil is forgotten",
    file: `${folder}/types/printType.ts`,
    text: "return admitsNull(reference, context) ? orNil(type) : type;",
    instead: "return type;",
    by: { contracts: "random" },
  },
  {
    name: "what is newer than the SDK is not written",
    file: `${folder}/types/printUnion.ts`,
    text: "if (isOpen) rows.push(",
    instead: "if (rows.length > 999) rows.push(",
    by: { contracts: "random" },
  },
  {
    name: "what holds itself is no box",
    file: `${folder}/types/printRecord.ts`,
    text: "isBoxed: context.boxed.fields.has(field),",
    instead: "isBoxed: false,",
    by: { contracts: "random" },
  },
  {
    name: "a text is interpolated",
    file: `${folder}/names/escape.ts`,
    text: '/[\\\\"\\n\\r\\t]/g',
    instead: '/["\\n\\r\\t]/g',
    by: { contracts: "hostile names" },
  },
  {
    name: "keywords are not in backticks",
    file: `${folder}/names/identifiers.ts`,
    text: "keywords.has(name) ? `\\`${name}\\`` : name",
    instead: "name",
    by: { contracts: "hostile names" },
  },
  {
    name: "types hide those of the language",
    file: `${folder}/names/identifiers.ts`,
    text: "takenTypes.has(short) || ",
    instead: "",
    by: { contracts: "hostile names" },
  },
  {
    name: "properties hide what every value has",
    file: `${folder}/names/identifiers.ts`,
    text: "return takenMembers.has(own) ? `${own}Value` : own;",
    instead: "return own;",
    by: { contracts: "hostile names" },
  },
  {
    name: "what a fragment selects is given out of order",
    file: `${folder}/types/printViews.ts`,
    text: "sortedBy(to.fields, names.of)",
    instead: "[...to.fields].reverse()",
    by: { contracts: "random queries" },
  },
  {
    name: "a list in the query is repeated",
    file: `${folder}/calls/printRequest.ts`,
    text: '(writer === "form" || writer === "reserved") && !explode',
    instead: 'writer === "reserved" && !explode',
    by: { rows: "parameters" },
  },
  {
    name: "a record in a header is written in one way",
    file: `${folder}/calls/printRequest.ts`,
    text: '.header(${text}${explode ? ", explode: true" : ""})',
    instead: ".header(${text})",
    by: { rows: "parameters" },
  },
  {
    name: "every JSON is application/json",
    file: `${folder}/calls/printRequest.ts`,
    text: 'writer.mediaType === undefined ? "" : `, type: ${quoted(writer.mediaType)}`',
    instead: '""',
    by: { rows: "bodies" },
  },
  {
    name: "a field that has to be there may be absent",
    file: `${folder}/types/printChecks.ts`,
    text: "(${fieldsText(check.required, context)}${optional}${rest})",
    instead: "([], optional: ${fieldsText([...check.required, ...check.optional], context)}${rest})",
    by: { rows: "answers" },
  },
  {
    name: "members of a union are told apart by their fields alone",
    file: `${folder}/types/printUnion.ts`,
    text: 'return [isThere, ...says].join(", ");',
    instead: "return says.length > 99 ? says[0] : isThere;",
    by: { rows: "values" },
  },
  {
    name: "null is absent",
    file: `${folder}/types/printType.ts`,
    text: 'isSent && admitsNull(field.type, context) ? "sent" : "optional"',
    instead: 'isSent && context.tuples.size > 9999 ? "sent" : "optional"',
    by: { rows: "bodies" },
  },
  {
    name: "other keys are not written",
    file: `${folder}/types/printRecord.ts`,
    text: "if (record.rest)\n    lines.push(\n      `  fields.others(",
    instead: "if (record.rest && lines.length > 999)\n    lines.push(\n      `  fields.others(",
    by: { rows: "bodies" },
  },
  {
    name: "a call goes to the usual server",
    file: `${folder}/calls/printRequest.ts`,
    text: "...(server === undefined ? [] : [`    ${name}.server = ${quoted(server)}`]),",
    instead: "",
    by: { rows: "calls" },
  },
];
