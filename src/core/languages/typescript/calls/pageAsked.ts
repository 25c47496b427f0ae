import type { PageReading, PageStep } from "../../../sdk/lower/pageReading.js";
import type { PlannedArgument } from "../../../sdk/sdkPlan.js";
import { apartFrom } from "../apartFrom.js";
import type { RestContext } from "../contractContext.js";
import { propertyAccess, propertyName, quoted } from "../names/escape.js";
import { valueIdentifier } from "../names/identifiers.js";
import { argumentKey } from "../names/names.js";
import { printShape } from "../types/printType.js";

/** The argument that selects the page. */
interface AskedBy {
  readonly argument: PlannedArgument;
  /** The type of its variable; undefined if the compiler infers it. */
  readonly type: string | undefined;
  readonly perform: string;
}

/** How source selects the page. */
export interface PageAsked {
  /** The variable for the position of the page. */
  readonly place: string;
  /** The property that passes it to the call. */
  readonly given: string;
  /** The app's start value. */
  readonly start: string;
  /** Returns a function that requests a page; `more` are the arguments that select it. */
  readonly at: (more: string, performed: (given: string) => string) => string;
}

/**
 * Returns how the argument that selects the page is given, without warnings if it is deprecated.
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
  // Reading a deprecated argument, or giving it with a variable of its name, would cause a warning.
  const wanted = isDeprecated ? "place" : property;
  // Not every key can be a variable, and no variable may hide the function.
  const place = apartFrom(valueIdentifier(wanted) === wanted ? wanted : "place", [perform]);
  // Pages are counted in numbers, whatever the setting for 64-bit integers.
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
    // It must not be written where its type is known to be deprecated, so it gets a line of its own.
    at: (more, performed) =>
      isDeprecated
        ? `(${parameter}) => {\n      const ${line} = ${more};\n      return ${performed(`{ ...args, ...${line} }`)};\n    }`
        : `(${parameter}) => ${performed(more.startsWith("{") ? `{ ...args, ${given} }` : `{ ...args, ...(${more}) }`)}`,
  };
}

/** Returns the type of the page's position if the compiler cannot infer it, which is so unless it is a string. */
export function placeType(pages: PageReading, context: RestContext): string | undefined {
  const isTyped = pages.argument !== undefined && pages.paging.by === "cursor" && pages.place !== "text";
  return isTyped ? printShape(pages.argument.type.shape, context.printer, "exact") : undefined;
}

/** Returns an expression for the next page's position, in the argument's type. */
export function nextPlace({ place, nextPlace: said, next }: PageReading, label: string): string {
  if (place === said) return reached(next);
  return place === "text" ? `wire.textPlace(${reached(next)})` : `wire.${place}Place(${label}, ${reached(next)})`;
}

/**
 * Returns an expression for a value inside a page.
 *
 * @param steps names in JSON; those that may be missing are read with `?.`
 */
export function reached(steps: readonly PageStep[]): string {
  return steps.reduce((text, { name, mayLack }) => {
    const access = propertyAccess("", name);
    return text + (mayLack ? `?.${access.replace(/^\./, "")}` : access);
  }, "page");
}
