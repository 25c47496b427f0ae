import { resolveShape } from "../../../contract/resolveShape.js";
import type { Reference } from "../../../contract/model.js";
import { pagesWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PageReading, PageStep } from "../../../sdk/lower/pageReading.js";
import type { RestCall } from "../../../sdk/sdkPlan.js";
import { sortedBy } from "../../../text/sortedBy.js";
import type { FileContext, RestContext } from "../contractContext.js";
import { deprecation, quoted } from "../names/escape.js";
import { spelled } from "../names/identifiers.js";
import { widest, withArguments } from "../kotlinFile.js";
import { argumentName, recordNames } from "../names/names.js";
import { usualAnswer } from "./printAnswer.js";
import { callDoc, hasTooMany, parametersOf, resultType } from "./callSignature.js";
import { admitsNull, fieldState, printReference, printShape } from "../types/printType.js";

type Context = RestContext & FileContext;

/** Prints the function for all pages of a call; "" if it has no pages. */
export function printPages(lowered: LoweredCall, context: Context): string {
  const { call, pages } = lowered;
  if (!pages) return "";
  const names = context.names.call(call);
  const { uses } = context;
  const item = printReference(pages.paging.item, context);
  const isReturned = context.contract.settings.failures === "return";
  const answer = usualAnswer(lowered, context).type;
  const items = reached(pages.items, lowered, context);
  const paging = withArguments(
    `${uses.wire("Paging")}<${answer}, ${item}>`,
    [quoted(lowered.label), `${names.failure}::Other`],
    { after: ` { page -> ${items.text} }`, indent: "        " },
  );
  const gone = goneThrough(lowered, pages, { paging, isReturned, context });
  const given = isReturned ? `${uses.wire("settledItems")}(\n        ${gone.replace(/\n/g, "\n    ")},\n    )` : gone;
  const words = pagesWords(names.call, call);
  const start = `public fun ${context.names.contract.connection}.${spelled(names.items)}`;
  const result = resultType(item, true, { failure: names.failure, fileContext: context });
  return `${callDoc(lowered, words, context)}${deprecation(words.deprecated)}${withArguments(start, parametersOf(lowered, context), { after: `: ${result} =` })}\n    ${given}\n`;
}

function goneThrough(
  lowered: LoweredCall,
  pages: PageReading,
  { paging, isReturned, context }: { readonly paging: string; readonly isReturned: boolean; readonly context: Context },
): string {
  const { uses } = context;
  const { call } = lowered;
  const tooMany = hasTooMany(lowered, context);
  const held = (name: string): string => `${tooMany ? "arguments." : ""}${spelled(name)}`;
  const names = context.names.call(call);
  const pagesText = (by: string, given: readonly string[], last: string): string =>
    `${uses.wire(by)}(\n${given.map((each) => `        ${each},\n`).join("")}    ) ${last}`;
  // A map, because an argument can have the name of an inherited member of JavaScript objects.
  const asked = (changed: ReadonlyMap<string, string>): string[] => {
    const options = changed.get("options") ?? "options";
    if (tooMany) {
      const others = [...changed].filter(([name]) => name !== "options");
      const set = others.map(([name, value]) => `it.${spelled(name)} = ${value}`);
      const own = set.length === 0 ? "arguments" : `arguments.also { ${set.join("; ")} }`;
      return [own, `options = ${options}`];
    }
    const given = sortedBy(call.arguments, argumentName).map((argument) => {
      const name = argumentName(argument);
      return `${spelled(name)} = ${changed.get(name) ?? spelled(name)}`;
    });
    return [...given, `options = ${options}`];
  };
  const after = isReturned ? `.${uses.wire("orThrow")}()` : "";
  const asking = (parameter: string, changed: readonly [string, string], indent: string): string =>
    lambda(parameter, { before: spelled(names.call), given: asked(new Map([changed])), after }, indent);
  const { argument } = pages;
  if (pages.paging.by === "link" || !argument) {
    const following = freeName("following", call);
    const credentials =
      pages.credentials.length === 0 ? "emptySet()" : `setOf(${pages.credentials.map(quoted).join(", ")})`;
    return pagesText(
      "pagesByLink",
      [paging, credentials, "options"],
      asking(following, ["options", following], "    "),
    );
  }
  const name = argumentName(argument);
  const kind = placeKind(argument.type, context);
  const place = freeName("place", call);
  if (pages.paging.by === "cursor") {
    const following = convertedPlace(reached(pages.next, { call }, context), kind);
    const given = argument.required ? `${place} ?: ${held(name)}` : place;
    return pagesText(
      "pagesByCursor",
      [paging, held(name), asking(place, [name, given], "        ")],
      `{ page -> ${following} }`,
    );
  }
  const start = argument.required ? held(name) : `(${held(name)} ?: ${String(pages.first)})`;
  const text = `${held(name)}${argument.required ? "" : "?"}.toLongOrNull() ?: ${String(pages.first)}`;
  const first = kind === "Long" ? start : kind === "String" ? text : `${start}.toLong()`;
  const given = kind === "Long" ? place : `${place}.to${kind}()`;
  const by = pages.paging.by === "offset" ? "pagesByOffset" : "pagesByNumber";
  return pagesText(by, [paging, first], asking(place, [name, given], "    "));
}

/** A function with one parameter that makes a call, on one line if it fits. */
function lambda(
  parameter: string,
  { before, given, after }: { readonly before: string; readonly given: readonly string[]; readonly after: string },
  indent: string,
): string {
  const line = `{ ${parameter} -> ${before}(${given.join(", ")})${after} }`;
  // A comma follows it, or a parenthesis precedes it.
  if (indent.length + line.length + 2 <= widest) return line;
  const inner = `${indent}    `;
  return `{ ${parameter} ->\n${inner}${withArguments(before, given, { after, indent: inner })}\n${indent}}`;
}

/** A name that no argument of a call has, so that it hides none. */
function freeName(wanted: string, call: RestCall): string {
  const taken = new Set(call.arguments.map(argumentName));
  let name = wanted;
  while (taken.has(name)) name += "Asked";
  return name;
}

/** The next page's position in a response, in the argument's type. */
function convertedPlace({ text, kind, isNullable }: Reached, wanted: string): string {
  if (kind === wanted) return text;
  const call = isNullable ? "?." : ".";
  if (wanted === "String") return `${text}${call}toString()`;
  // An empty string is no position. The code that reads the pages refuses a string that is not a number.
  return kind === "String" ? `${text}${call}ifEmpty { null }?.to${wanted}()` : `${text}${call}to${wanted}()`;
}

/** Kotlin's type for the position of a page. */
function placeKind({ shape }: Reference, context: Context): string {
  return printShape(resolveShape(shape, context.contract.types), context);
}

/** An expression for a value inside a page. */
interface Reached {
  readonly text: string;
  /** Its type, without null. */
  readonly kind: string;
  readonly isNullable: boolean;
}

/** Reads a value of a response by the names of properties. */
function reached(steps: readonly PageStep[], { call }: Pick<LoweredCall, "call">, context: Context): Reached {
  let type: Reference | undefined = call.answers[0]?.type;
  let text = "page";
  const response = call.answers.length > 1 || type?.nullable === true;
  let isNullable = response;
  for (const [at, step] of steps.entries()) {
    const shape = type && resolveShape(type.shape, context.contract.types);
    if (shape?.kind !== "record") break;
    const field = shape.fields.find(({ name }) => name === step.name);
    if (!field) break;
    const id = type?.shape.kind === "named" ? type.shape.key : undefined;
    const isSent = id !== undefined && context.directions.get(id)?.isWritten === true;
    text += `${step.mayLack || (at === 0 && response) ? "?" : ""}.${spelled(recordNames(shape).of(field))}`;
    if (fieldState(field, isSent, context) === "sent") text += `.${context.uses.wire("orNull")}()`;
    isNullable = step.mayLack || (at === 0 && response) || !field.required || admitsNull(field.type, context);
    type = field.type;
  }
  return { text, kind: type ? placeKind(type, context) : "String", isNullable };
}
