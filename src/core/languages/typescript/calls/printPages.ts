import { pagesWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PageReading } from "../../../sdk/lower/pageReading.js";
import type { RestContext } from "../contractContext.js";
import { docComment, quoted } from "../names/escape.js";
import { nextPlace, pageAsked, placeType, reached } from "./pageAsked.js";
import { callSignature } from "./printCallFunction.js";
import { resultType, returnsFailures } from "./printResult.js";
import { printReference } from "../types/printType.js";

/** Prints the function for all pages of a call; "" if it has no pages. */
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
  const type = placeType(pages, context);
  const gone = goneThrough(pages, { label: quoted(label), type, perform: names.perform }, performed);
  const returned = returnsFailures(context) ? `wire.settledItems(${gone})` : gone;
  const doc = docComment(pagesWords(names.call, call));
  const isHidden = names.performItems !== names.items;
  const hidden = `/** The implementation of \`${names.items}\`. It is not deprecated itself, so that the grouped calls can use it. */\n`;
  const args =
    call.arguments.length > 0 ? `args: ${argsType}${argsNeeded ? "" : " = {}"}` : "args: wire.NoArguments = {}";
  return (
    `${isHidden ? hidden : doc}export function ${names.performItems}(\n  connection: ${context.names.contract.connection},\n` +
    `  ${args},\n  options?: wire.CallOptions,\n` +
    `): ${resultType(item, true, { failure: names.failure, context })} {\n  return ${returned};\n}\n` +
    (isHidden ? `\n${doc}export const ${names.items}: typeof ${names.performItems} = ${names.performItems};\n` : "")
  );
}

/** @param performed the call with the given arguments and options */
function goneThrough(
  pages: PageReading,
  { label, type, perform }: { readonly label: string; readonly type: string | undefined; readonly perform: string },
  performed: (given: string, options: string) => string,
): string {
  const items = `(page) => ${reached(pages.items)}`;
  if (pages.paging.by === "link" || !pages.argument)
    return `wire.pagesByLink(\n    ${label},\n    connection,\n    (connection, onAnswer) => ${performed("args", "{ ...options, onAnswer }")},\n    ${items},\n    { credentials: [${pages.credentials.map(quoted).join(", ")}], onAnswer: options?.onAnswer },\n  )`;
  const asked = pageAsked(pages, {
    argument: pages.argument,
    type: type === undefined ? undefined : `${type} | undefined`,
    perform,
  });
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
