import { pagesWords } from "../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import type { PageReading, PageStep } from "../../sdk/lower/pageReading.js";
import type { PlannedArgument } from "../../sdk/sdkPlan.js";
import type { RestContext } from "./contractContext.js";
import { docComment, propertyAccess, propertyName, quoted } from "./escape.js";
import { argumentKey } from "./names.js";
import { callSignature } from "./printCallFunction.js";
import { resultType, returnsFailures } from "./printResult.js";
import { printReference, printShape } from "./printType.js";

/** Prints the function that goes through all pages of a call; "" where it answers everything at once. */
export function printPages(lowered: LoweredCall, context: RestContext): string {
  const { call, label, pages } = lowered;
  if (!pages) return "";
  const names = context.names.rest(call);
  const { argsType, argsNeeded } = callSignature(lowered, context);
  const item = printReference(pages.paging.item, context.printer, "exact");
  const performed = (given: string, options: string): string => {
    const text = `${names.perform}(connection, ${given}, ${options})`;
    return returnsFailures(context) ? `wire.unsettled(${text})` : text;
  };
  // Where it is no text, the compiler has to be told what says which page.
  const isTyped = pages.argument !== undefined && pages.paging.by === "cursor" && pages.place !== "text";
  const type = isTyped ? printShape(pages.argument.type.shape, context.printer, "exact") : undefined;
  const gone = goneThrough(pages, { label: quoted(label), type }, performed);
  const returned = returnsFailures(context) ? `wire.settledItems(${gone})` : gone;
  const doc = docComment(pagesWords(names.call, call));
  const isHidden = names.performItems !== names.items;
  const hidden = `/** What \`${names.items}\` does; not marked itself, so that the grouped calls can use it. */\n`;
  const args =
    call.arguments.length > 0 ? `args: ${argsType}${argsNeeded ? "" : " = {}"}` : "args: wire.NoArguments = {}";
  return (
    `${isHidden ? hidden : doc}export function ${names.performItems}(\n  connection: ${context.names.contract.connection},\n` +
    `  ${args},\n  options?: wire.CallOptions,\n` +
    `): ${resultType(item, true, names.failure, context)} {\n  return ${returned};\n}\n` +
    (isHidden ? `\n${doc}export const ${names.items}: typeof ${names.performItems} = ${names.performItems};\n` : "")
  );
}

/** @param performed the call with the given arguments and options */
function goneThrough(
  pages: PageReading,
  { label, type }: { readonly label: string; readonly type: string | undefined },
  performed: (given: string, options: string) => string,
): string {
  const items = `(page) => ${reached(pages.items)}`;
  if (pages.paging.by === "link" || !pages.argument)
    return `wire.pagesByLink(\n    ${label},\n    connection,\n    (connection, onAnswer) => ${performed("args", "{ ...options, onAnswer }")},\n    ${items},\n    { credentials: [${pages.credentials.map(quoted).join(", ")}], onAnswer: options?.onAnswer },\n  )`;
  const asked = pageAsked(pages, pages.argument, type);
  const askedAt = (more: string): string => asked.at(more, (given) => performed(given, "options"));
  switch (pages.paging.by) {
    case "cursor":
      return `wire.${type === undefined ? "pagesByCursor" : "pagesByPlace"}(\n    ${label},\n    ${askedAt(`${asked.place} === undefined ? {} : { ${asked.given} }`)},\n    ${items},\n    (page) => ${nextPlace(pages, label)},\n  )`;
    case "offset":
      return `wire.pagesByOffset(\n    ${askedAt(`{ ${asked.given} }`)},\n    ${items},\n    ${asked.start},\n  )`;
    case "number":
      return `wire.pagesByNumber(\n    ${askedAt(`{ ${asked.given} }`)},\n    ${items},\n    ${asked.start},\n  )`;
  }
}

interface PageAsked {
  /** The variable that holds which page. */
  readonly place: string;
  /** The property that says it to the call. */
  readonly given: string;
  /** What the app begins with. */
  readonly start: string;
  /** A function that asks for a page; `more` are the arguments that say which. */
  readonly at: (more: string, performed: (given: string) => string) => string;
}

/** How the argument that says which page is given, so that nothing complains where it is deprecated. */
function pageAsked(
  { paging, place: kind, first }: PageReading,
  argument: PlannedArgument,
  type: string | undefined,
): PageAsked {
  const key = argumentKey(argument);
  const property = propertyName(key);
  const isDeprecated = argument.source.kind === "parameter" && argument.source.parameter.deprecated !== undefined;
  // To read a deprecated argument, or to give it by a variable of its name, would be complained about.
  const place = isDeprecated ? "place" : property;
  // Pages are counted in numbers, whatever the settings make of a 64-bit one.
  const isConverted = paging.by !== "cursor" && kind !== "number";
  const converted = isConverted ? `${kind === "bigint" ? "BigInt" : "String"}(${place})` : place;
  const parameter = type === undefined ? place : `${place}: ${type} | undefined`;
  const given = converted === property ? property : `${property}: ${converted}`;
  const found = isDeprecated
    ? `new Map<string, unknown>(Object.entries(args)).get(${quoted(key)})`
    : propertyAccess("args", key);
  const said = argument.required && !argument.standing ? found : `${found} ?? ${String(first)}`;
  return {
    place,
    given,
    start: isDeprecated || isConverted ? `Number(${said})` : said,
    // Nor may it be written where its type is known to be deprecated, so it gets a line of its own.
    at: (more, performed) =>
      isDeprecated
        ? `(${parameter}) => {\n      const given = ${more};\n      return ${performed("{ ...args, ...given }")};\n    }`
        : `(${parameter}) => ${performed(more.startsWith("{") ? `{ ...args, ${given} }` : `{ ...args, ...(${more}) }`)}`,
  };
}

/** What an answer says of the next page, as the argument's kind of value. */
function nextPlace({ place, nextPlace: said, next }: PageReading, label: string): string {
  if (place === said) return reached(next);
  return place === "text" ? `wire.textPlace(${reached(next)})` : `wire.${place}Place(${label}, ${reached(next)})`;
}

/** A value inside a page, by wire names; what may be missing on the way is asked for with care. */
function reached(steps: readonly PageStep[]): string {
  return steps.reduce((text, { name, mayLack }) => {
    const access = propertyAccess("", name);
    return text + (mayLack ? `?.${access.replace(/^\./, "")}` : access);
  }, "page");
}
