import type { Reference } from "../../../contract/model.js";
import { resolveShape } from "../../../contract/resolveShape.js";
import { pagesWords } from "../../../sdk/lower/documentation.js";
import type { LoweredCall } from "../../../sdk/lower/loweredSdk.js";
import type { PageReading, PageStep } from "../../../sdk/lower/pageReading.js";
import { callDoc, givenArguments, parametersOf, resultText } from "./callSignature.js";
import type { RestContext } from "../contractContext.js";
import { deprecation, quoted } from "../names/escape.js";
import { freeName } from "../names/freeName.js";
import { spelled } from "../names/identifiers.js";
import { argumentName, recordNames } from "../names/names.js";
import { usualAnswer } from "./printAnswer.js";
import { admitsNull, fieldState, printReference, printShape } from "../types/printType.js";
import { listed, widest } from "../swiftFile.js";

/** Prints the function for all pages of a call; "" if it has no pages. */
export function printPages(lowered: LoweredCall, context: RestContext): string {
  const { call, pages } = lowered;
  if (!pages) return "";
  const names = context.names.call(call);
  const { space, wire, access } = context;
  const item = printReference(pages.paging.item, context);
  const isReturned = context.contract.settings.failures === "return";
  const answer = usualAnswer(lowered, context).type;
  const failure = `${space}.${names.failure}`;
  const items = reached(pages.items, lowered, context);
  const paging = freeName("paging", call.arguments.map(argumentName));
  const words = pagesWords(names.call, call);
  const signature = listed(
    `  ${access}func ${spelled(names.items)}`,
    parametersOf(lowered, context),
    `${resultText(item, true, { failure: names.failure, contractContext: context })} {`,
  );
  return (
    `${callDoc(lowered, words)}${deprecation(words.deprecated, "  ")}${signature}\n` +
    `    let ${paging} = ${wire}.Paging<${answer}, ${item}, ${failure}>(call: ${quoted(lowered.label)}) { page in\n      ${items.text}\n    }\n` +
    `${goneThrough(lowered, pages, { paging, failure, answer, context })}${isReturned ? ".outcomes" : ""}\n  }\n`
  );
}

/** The request of a page: the call with one of its arguments changed. */
interface AskedPage {
  readonly parameter: string;
  readonly type: string;
  readonly changed: string;
  readonly value: string;
}

/** A statement that reads all pages. */
function goneThrough(
  lowered: LoweredCall,
  pages: PageReading,
  {
    paging,
    failure,
    answer,
    context,
  }: { readonly paging: string; readonly failure: string; readonly answer: string; readonly context: RestContext },
): string {
  const { call } = lowered;
  const names = context.names.call(call);
  const isReturned = context.contract.settings.failures === "return";
  const asking = (before: string, { parameter, type, changed, value }: AskedPage, indent = "    "): string => {
    const given = givenArguments(lowered).map((argument) => {
      const name = argumentName(argument);
      return `${name}: ${name === changed ? value : spelled(name)}`;
    });
    const options = `options: ${changed === "options" ? value : "options"}`;
    const call = `${indent}  try await self.${spelled(names.call)}`;
    const asked = listed(call, [...given, options], isReturned ? ".get()" : "");
    const taken = `(${parameter}: ${type}) async throws(${failure})`;
    const start = `${before}{ ${taken} -> ${answer} in`;
    if (start.length <= widest) return `${start}\n${asked}\n${indent}}`;
    const whole = `${indent}  ${taken} -> ${answer} in`;
    const signature = whole.length <= widest ? whole : `${indent}  ${taken}\n${indent}    -> ${answer} in`;
    return `${before}{\n${signature}\n${asked}\n${indent}}`;
  };
  const { argument } = pages;
  const { wire } = context;
  if (pages.paging.by === "link" || !argument) {
    const following = freeName("following", call.arguments.map(argumentName));
    const credentials = `[${pages.credentials.map(quoted).join(", ")}]`;
    return asking(`    return self.wire.pagesByLink(${paging}, credentials: ${credentials}, options) `, {
      parameter: following,
      type: `${wire}.CallOptions`,
      changed: "options",
      value: following,
    });
  }
  const name = argumentName(argument);
  const kind = placeKind(argument.type, context);
  const place = freeName("place", call.arguments.map(argumentName));
  if (pages.paging.by === "cursor") {
    const next = reached(pages.next, { call }, context);
    const value = argument.required ? `${place} ?? ${spelled(name)}` : place;
    const said = next.kind === kind ? `.init(${next.text})` : `.init(converting: ${next.text})`;
    const asked = asking("      ask: ", { parameter: place, type: `${kind}?`, changed: name, value }, "      ");
    return `    return self.wire.pagesByCursor(\n      ${paging},\n      from: ${spelled(name)},\n      next: { page in ${said} },\n${asked}\n    )`;
  }
  const first = String(pages.first);
  const own = argument.required
    ? spelled(name)
    : `(${spelled(name)} ?? ${kind === "Swift.String" ? quoted(first) : first})`;
  const start =
    kind === "Swift.Int64" ? own : kind === "Swift.String" ? `Swift.Int64(${own}) ?? ${first}` : `Swift.Int64(${own})`;
  const value = kind === "Swift.Int64" ? place : `${kind}(${place})`;
  const by = pages.paging.by === "offset" ? "pagesByOffset" : "pagesByNumber";
  return asking(`    return self.wire.${by}(${paging}, from: ${start}) `, {
    parameter: place,
    type: "Swift.Int64",
    changed: name,
    value,
  });
}

/** The type of the position of a page. */
function placeKind({ shape }: Reference, context: RestContext): string {
  return printShape(resolveShape(shape, context.contract.types), context);
}

/** An expression for a value inside a page. */
interface Reached {
  readonly text: string;
  /** Its type, without nil. */
  readonly kind: string;
}

/** Reads a value of a response by the names of properties. */
function reached(steps: readonly PageStep[], { call }: Pick<LoweredCall, "call">, context: RestContext): Reached {
  let type: Reference | undefined = call.answers[0]?.type;
  let text = "page";
  let mayLack = call.answers.length > 1 || (type !== undefined && admitsNull(type, context));
  for (const step of steps) {
    const shape = type && resolveShape(type.shape, context.contract.types);
    if (shape?.kind !== "record") break;
    const field = shape.fields.find(({ name }) => name === step.name);
    if (!field) break;
    const id = type?.shape.kind === "named" ? type.shape.key : undefined;
    const isSent = id !== undefined && context.directions.get(id)?.isWritten === true;
    text += `${mayLack ? "?" : ""}.${spelled(recordNames(shape).of(field))}`;
    const state = fieldState(field, isSent, context);
    if (state === "sent") text += ".given";
    mayLack = state !== "required" || admitsNull(field.type, context);
    type = field.type;
  }
  return { text, kind: type ? placeKind(type, context) : "Swift.String" };
}
