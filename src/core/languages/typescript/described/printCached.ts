import { sentences } from "../../../sdk/lower/sentences.js";
import { groupedBy } from "../../../text/groupedBy.js";
import { sortedBy } from "../../../text/sortedBy.js";
import { apartFrom, importedAs } from "../apartFrom.js";
import { cachedCalls, type CachedCall } from "./cachedCalls.js";
import type { ContractContext } from "../contractContext.js";
import { comment, docComment, propertyName, quoted } from "../names/escape.js";
import { printDescribedPages } from "./printDescribedPages.js";
import { returnsFailures } from "../calls/printResult.js";

/** The text of a contract's module of described calls, and its imports from the modules of calls. */
export interface PrintedCached {
  readonly text: string;
  readonly imports: readonly { readonly file: string; readonly types: string[]; readonly values: string[] }[];
}

/** A function that returns the description of a call, or of all its pages. */
interface Member {
  readonly name: string;
  readonly doc: string;
  readonly parameters: string;
  readonly type: string;
  readonly value: string;
  /** Whether it is all pages of another one, with which it shares a part of the key. */
  readonly isPages?: boolean;
}

/** Prints the function that describes all calls of a contract, and the function for their common keys. */
export function printCached(context: ContractContext): PrintedCached {
  const { contract } = context;
  const { cached, key, connection } = context.names.contract;
  const calls = cachedCalls(context);
  const members = sortedBy(
    calls.flatMap((call) => [memberOf(call, context), ...pagesOf(call, context)]),
    ({ name }) => name,
  );
  const lines = members.map(
    ({ name, doc, parameters, type, value }) =>
      `${doc}    ${propertyName(name)}: ${parameters}: ${type} =>\n      ${value},\n`,
  );
  const pages = members.filter(({ isPages }) => isPages === true).map(({ name }) => quoted(name));
  const all = `keyof ReturnType<typeof ${cached}>`;
  const keyed = pages.length === 0 ? all : `Exclude<${all}, ${pages.join(" | ")}>`;
  return {
    text:
      `${comment(sentences.cached(contract.plan.title))}export function ${cached}(connection: ${connection}) {\n  return {\n${lines.join("")}  };\n}\n\n` +
      `${comment(sentences.cachedKey)}export function ${key}(\n  connection?: ${connection},\n  call?: ${keyed},\n): readonly unknown[] {\n` +
      `  return wire.commonKey(${quoted(contract.plan.name)}, connection, call);\n}\n`,
    imports: [...groupedBy(calls, ({ file }) => file)].map(([file, here]) => ({
      file,
      types: here.flatMap(({ types }) => types),
      values: here.map(({ perform }) => importedAs(perform, localName(perform, context))),
    })),
  };
}

/** The module's local name of a function that makes a call. */
function localName(perform: string, { names }: ContractContext): string {
  return apartFrom(perform, [names.contract.cached, names.contract.key]);
}

function memberOf(call: CachedCall, context: ContractContext): Member {
  const { name, generics, answer, failure, kind } = call;
  const said = { name, doc: docOf(call, call.summary) };
  if (kind === "Change")
    return {
      ...said,
      parameters: `${generics}()`,
      type: `wire.DescribedChange<${changeArgs(call)}, ${answer}, ${failure}>`,
      value: `wire.describedChange((args) => ${performed(call, "args", context)})`,
    };
  const given = call.args ? "args" : "{}";
  const kept = `call: ${quoted(name)}, ${call.args ? "args" : "args: {}"}`;
  return {
    ...said,
    parameters: `${generics}(${parameterOf(call)})`,
    type: `wire.Described${kind}<${answer}, ${failure}>`,
    value: `wire.described${kind}(connection, { ${kept}, ask: (options) => ${performed(call, `${given}, options`, context)} })`,
  };
}

/** All pages of a call; nothing if it has no pages. */
function pagesOf(call: CachedCall, context: ContractContext): Member[] {
  if (!call.pages || context.contract.protocol === "graphql") return [];
  const walk = printDescribedPages(
    { ...call.pages, answer: call.answer, perform: (given) => performed(call, `${given}, options`, context) },
    { ...context, contract: context.contract },
  );
  return [
    {
      ...walk,
      name: context.names.rest(call.pages.call).describedPages,
      doc: docOf(call, sentences.cachedPages(call.name)),
      parameters: `(${parameterOf(call)})`,
      isPages: true,
    },
  ];
}

function changeArgs({ args }: CachedCall): string {
  if (!args) return "void";
  return args.isNeeded ? args.type : `wire.MaybeGiven<${args.type}>`;
}

function parameterOf({ args }: CachedCall): string {
  return args ? `args: ${args.type}${args.isNeeded ? "" : " = {}"}` : "";
}

/** A call that throws its failures, whatever the settings. */
function performed({ perform, kind }: CachedCall, given: string, context: ContractContext): string {
  const text = `${localName(perform, context)}(connection, ${given})`;
  if (!returnsFailures(context)) return text;
  return `wire.${kind === "Stream" ? "unsettledItems" : "unsettled"}(${text})`;
}

function docOf({ deprecated }: CachedCall, said: string | undefined): string {
  return docComment({ paragraphs: [said], ...(deprecated === undefined ? {} : { deprecated }) }, "    ");
}
