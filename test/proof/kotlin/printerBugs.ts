import type { calledKinds } from "../../languages/vectors/vectorSteps.js";
import type { Bug } from "../planted/bugs.js";

/** What must find a bug: the rows of a kind, or the compiler and the JVM with some contracts. */
export type Finder =
  | { readonly rows: (typeof calledKinds)[number] }
  | { readonly contracts: "hostile names" | "large" | "random" | "random queries" };

/** A bug in the printer of Kotlin, with what must find it. */
export type PrinterBug = Omit<Bug, "seeds" | "byLint"> & { readonly by: Finder };

const folder = "languages/kotlin";

export const printerBugs: readonly PrinterBug[] = [
  {
    name: "null is forgotten",
    file: `${folder}/types/printType.ts`,
    text: "return admitsNull(reference, context) ? orNull(type) : type;",
    instead: "return type;",
    by: { contracts: "random" },
  },
  {
    name: "what is newer than the SDK is not written",
    file: `${folder}/types/printUnion.ts`,
    text: "if (context.isOpen) rows.push(",
    instead: "if (false) rows.push(",
    by: { contracts: "random" },
  },
  {
    name: "what a fragment selects is not said to be overridden",
    file: `${folder}/types/printRecord.ts`,
    text: 'inherited.has(field.name) ? "override val" : "public val"',
    instead: '"public val"',
    by: { contracts: "random queries" },
  },
  {
    name: "a text is a template",
    file: `${folder}/names/escape.ts`,
    text: '/[\\\\"$\\n\\r\\t]/g',
    instead: '/[\\\\"\\n\\r\\t]/g',
    by: { contracts: "hostile names" },
  },
  {
    name: "a comment opens another one",
    file: `${folder}/names/escape.ts`,
    text: '.replace(/\\/(?=\\*)/g, "/ ")',
    instead: "",
    by: { contracts: "hostile names" },
  },
  {
    name: "keywords are not in backticks",
    file: `${folder}/names/identifiers.ts`,
    text: "hardKeywords.has(name) ? `\\`${name}\\`` : name",
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
    name: "a long takes one slot",
    file: `${folder}/names/slots.ts`,
    text: '(type === "Long" || type === "Double" ? 2 : 1)',
    instead: "1",
    by: { contracts: "large" },
  },
  {
    name: "a call takes any number of arguments",
    file: `${folder}/calls/callSignature.ts`,
    text: 'return !fitsOneMethod([...types, "Connection", "CallOptions", "Continuation"]);',
    instead: "return types.length > 99_999;",
    by: { contracts: "large" },
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
    text: '(${text}${explode ? ", explode = true" : ""})',
    instead: "(${text})",
    by: { rows: "parameters" },
  },
  {
    name: "parts of a form have the usual style",
    file: `${folder}/calls/printRequest.ts`,
    text: "...(field.style === undefined ? [] : [`style = ${quoted(field.style)}`]),",
    instead: "",
    by: { rows: "bodies" },
  },
  {
    name: "every JSON is application/json",
    file: `${folder}/calls/printRequest.ts`,
    text: 'writer.mediaType === undefined ? "" : `, ${quoted(writer.mediaType)}`',
    instead: '""',
    by: { rows: "bodies" },
  },
  {
    name: "a field that has to be there may be absent",
    file: `${folder}/types/printChecks.ts`,
    text: "(${fieldsText(check.required, context)}, ${fieldsText(check.optional, context)}",
    instead: "(emptyList(), ${fieldsText([...check.required, ...check.optional], context)}",
    by: { rows: "answers" },
  },
  {
    name: "members of a union are told apart by their fields alone",
    file: `${folder}/types/printUnion.ts`,
    text: 'return [isThere, ...says].join(" && ");',
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
    text: "if (record.rest)\n    lines.push(",
    instead: "if (record.rest && lines.length > 999)\n    lines.push(",
    by: { rows: "bodies" },
  },
  {
    name: "an empty text names the next page",
    file: `${folder}/calls/printPages.ts`,
    text: "${call}ifEmpty { null }?.to",
    instead: "${call}to",
    by: { rows: "paging" },
  },
  {
    name: "a call goes to the usual server",
    file: `${folder}/calls/printRequest.ts`,
    text: "...(server === undefined ? [] : [`server = ${quoted(server)}`]),",
    instead: "",
    by: { rows: "calls" },
  },
];
