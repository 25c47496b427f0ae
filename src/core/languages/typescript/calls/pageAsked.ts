import type { PageReading, PageStep } from "../../../sdk/lower/pageReading.js";
import type { PlannedArgument } from "../../../sdk/sdkPlan.js";
import { apartFrom } from "../apartFrom.js";
import type { RestContext } from "../contractContext.js";
import { propertyAccess, propertyName, quoted } from "../names/escape.js";
import { valueIdentifier } from "../names/identifiers.js";
import { argumentKey } from "../names/names.js";
import { printShape } from "../types/printType.js";

/** The argument that says which page. */
interface AskedBy {
  readonly argument: PlannedArgument;
  /** The type of its variable; undefined where the compiler finds out. */
  readonly type: string | undefined;
  readonly perform: string;
}

/** How source says which page it asks for. */
export interface PageAsked {
  /** The variable that holds which page. */
  readonly place: string;
  /** The property that says it to the call. */
  readonly given: string;
  /** What the app begins with. */
  readonly start: string;
  /** A function that asks for a page; `more` are the arguments that say which. */
  readonly at: (more: string, performed: (given: string) => string) => string;
}

/**
 * How the argument that says which page is given, so that nothing complains where it is deprecated.
 *
 * @param perform the function that is called with it
 */
export function pageAsked(
  { paging, place: kind, first }: PageReading,
  { argument, type, perform }: AskedBy,
): PageAsked {
  const key = argumentKey(argument);
  const property = propertyName(key);
  const isDeprecated = argument.source.kind === "parameter" && argument.source.parameter.deprecated !== undefined;
  // To read a deprecated argument, or to give it by a variable of its name, would be complained about.
  const wanted = isDeprecated ? "place" : property;
  // Not every key can be a variable, and none may hide the function.
  const place = apartFrom(valueIdentifier(wanted) === wanted ? wanted : "place", [perform]);
  // Pages are counted in numbers, whatever the settings make of a 64-bit one.
  const isConverted = paging.by !== "cursor" && kind !== "number";
  const converted = isConverted ? `${kind === "bigint" ? "BigInt" : "String"}(${place})` : place;
  const parameter = type === undefined ? place : `${place}: ${type}`;
  const given = converted === property ? property : `${property}: ${converted}`;
  const line = apartFrom("given", [perform]);
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
        ? `(${parameter}) => {\n      const ${line} = ${more};\n      return ${performed(`{ ...args, ...${line} }`)};\n    }`
        : `(${parameter}) => ${performed(more.startsWith("{") ? `{ ...args, ${given} }` : `{ ...args, ...(${more}) }`)}`,
  };
}

/** The type of what says which page, where the compiler has to be told: where it is no text. */
export function placeType(pages: PageReading, context: RestContext): string | undefined {
  const isTyped = pages.argument !== undefined && pages.paging.by === "cursor" && pages.place !== "text";
  return isTyped ? printShape(pages.argument.type.shape, context.printer, "exact") : undefined;
}

/** What an answer says of the next page, as the argument's kind of value. */
export function nextPlace({ place, nextPlace: said, next }: PageReading, label: string): string {
  if (place === said) return reached(next);
  return place === "text" ? `wire.textPlace(${reached(next)})` : `wire.${place}Place(${label}, ${reached(next)})`;
}

/** A value inside a page, by wire names; what may be missing on the way is asked for with care. */
export function reached(steps: readonly PageStep[]): string {
  return steps.reduce((text, { name, mayLack }) => {
    const access = propertyAccess("", name);
    return text + (mayLack ? `?.${access.replace(/^\./, "")}` : access);
  }, "page");
}
