import type { Field, Reference, Shape } from "../contract/model.js";
import { resolveShape } from "../contract/resolveShape.js";
import { pointerTokens } from "../problem/place.js";
import type { PagingKind, PlannedArgument, PlannedPaging, PlannedType, RestCall } from "./sdkPlan.js";

/** The configured paging by operationId; "off" for an operation that has no pages. */
export type PagingSettings = Readonly<Record<string, "off" | PagingChoice>>;

export interface PagingChoice {
  readonly by: PagingKind;
  /** The parameter that selects the page, by its name in the request. */
  readonly parameter?: string;
  /** JSON pointer to the list of items in the response. Default: the only list. */
  readonly items?: string;
  /** By cursor: JSON pointer to the next cursor in the response. */
  readonly next?: string;
}

type Types = ReadonlyMap<string, PlannedType>;

/**
 * Plans how a call's pages are read, from the settings, otherwise from its parameters and its response.
 *
 * @returns undefined if the call has no pages, or if nothing shows how to get the next one
 */
export function planPaging(call: RestCall, types: Types, settings: PagingSettings): PlannedPaging | undefined {
  const said = saidOf(call, settings);
  if (said === "off" || (said === undefined && call.operation.method !== "get")) return undefined;
  const answer = onlyAnswer(call);
  if (!answer) return undefined;
  const paging = said ? asSaid(said, call, { answer, types }) : recognised(call, answer, types);
  return typeof paging === "object" ? { ...paging, isRecognised: said === undefined } : undefined;
}

/** Returns why a call's pages cannot be read with its settings; undefined if they can, or if there are no settings. */
export function pagingObstacle(call: RestCall, types: Types, settings: PagingSettings): string | undefined {
  const said = saidOf(call, settings);
  if (said === undefined || said === "off") return undefined;
  const answer = onlyAnswer(call);
  if (!answer) return "it does not have exactly one JSON response";
  const paging = asSaid(said, call, { answer, types });
  return typeof paging === "string" ? paging : undefined;
}

function saidOf({ operation }: RestCall, settings: PagingSettings): "off" | PagingChoice | undefined {
  const { operationId } = operation;
  return operationId !== undefined && Object.hasOwn(settings, operationId) ? settings[operationId] : undefined;
}

function onlyAnswer({ answers, answerChoices }: RestCall): Reference | undefined {
  const [answer, ...others] = answers;
  return others.length === 0 && answerChoices.length === 0 && answer?.form === "json" ? answer.type : undefined;
}

type Found = Omit<PlannedPaging, "isRecognised">;

/** @returns the paging, or why it is not possible */
function asSaid(
  choice: PagingChoice,
  call: RestCall,
  { answer, types }: { readonly answer: Reference; readonly types: Types },
): Found | string {
  const list = choice.items === undefined ? onlyList(answer, types) : at(pointerTokens(choice.items), answer, types);
  const shape = list && resolveShape(list.type.shape, types);
  if (!list || shape?.kind !== "list") {
    if (choice.items !== undefined) return `its response has no list at \`${choice.items}\``;
    return "its response has no list, or several; set `items`";
  }
  const found = { items: list.path, item: shape.item };
  if (choice.by === "link") return { ...found, by: "link" };
  const argument = call.arguments.find(
    ({ source }) => source.kind === "parameter" && source.parameter.name === choice.parameter,
  );
  if (!argument)
    return choice.parameter === undefined ? "`parameter` is missing" : `it has no parameter \`${choice.parameter}\``;
  if (!isPlace(argument.type, types)) return `\`${choice.parameter ?? ""}\` is neither a string nor a number`;
  if (choice.by === "offset") return { ...found, by: "offset", argument: argument.name };
  if (choice.by === "number")
    return { ...found, by: "number", argument: argument.name, first: firstPage(argument, types) };
  const next = choice.next === undefined ? nextCursor(answer, types, places) : pointerTokens(choice.next);
  if (!next) return "its response does not contain the next page; set `next`";
  const cursor = at(next, answer, types);
  if (!cursor || !isPlace(cursor.type, types))
    return `its response has no string or number at \`${choice.next ?? ""}\``;
  return { ...found, by: "cursor", argument: argument.name, next };
}

/** The types of a page position. */
const places: readonly Shape["kind"][] = ["text", "integer", "number"];

/** Whether a value can be a page position. */
function isPlace({ shape }: Reference, types: Types): boolean {
  return places.includes(resolveShape(shape, types).kind);
}

/** The words of contracts for a parameter with the end of the last page. */
const cursorNames = /^(page)?(cursor|token|after|startingafter|continuation(token)?|marker|nexttoken)$/;
const offsetNames = /^(offset|skip|start(index)?)$/;
const numberNames = /^(page|pagenumber|pageno|pageindex)$/;

function recognised(call: RestCall, answer: Reference, types: Types): Found | undefined {
  const list = onlyList(answer, types);
  const shape = list && resolveShape(list.type.shape, types);
  if (!list || shape?.kind !== "list") return undefined;
  const found = { items: list.path, item: shape.item };
  const query = call.arguments.filter(({ source }) => source.kind === "parameter" && source.parameter.in === "query");
  const named = (names: RegExp, kinds: readonly Shape["kind"][]): PlannedArgument | undefined =>
    query.find(
      ({ source, type }) =>
        source.kind === "parameter" &&
        names.test(plain(source.parameter.name)) &&
        kinds.includes(resolveShape(type.shape, types).kind),
    );
  const next = nextCursor(answer, types, ["text"]);
  const cursor = named(cursorNames, ["text"]);
  if (cursor && next) return { ...found, by: "cursor", argument: cursor.name, next };
  if (call.headers.some(({ field }) => field.name.toLowerCase() === "link")) return { ...found, by: "link" };
  const offset = named(offsetNames, ["integer", "number"]);
  if (offset) return { ...found, by: "offset", argument: offset.name };
  const number = named(numberNames, ["integer", "number"]);
  return number && { ...found, by: "number", argument: number.name, first: firstPage(number, types) };
}

/** Pages are counted from 1 unless the contract has another minimum or default. */
function firstPage(argument: PlannedArgument, types: Types): number {
  if (argument.source.kind !== "parameter") return 1;
  const shape = resolveShape(argument.type.shape, types);
  const fallback = argument.source.parameter.default;
  if (typeof fallback === "number") return fallback;
  return shape.kind === "integer" && shape.constraints?.minimum === 0 ? 0 : 1;
}

function plain(name: string): string {
  return name.toLowerCase().replace(/[^a-z]/g, "");
}

interface ListFound {
  readonly path: readonly string[];
  readonly type: Reference;
}

/** The response itself, or the only list of records among its fields; nothing if there are several. */
function onlyList(answer: Reference, types: Types): ListFound | undefined {
  const shape = resolveShape(answer.shape, types);
  if (shape.kind === "list") return { path: [], type: answer };
  if (shape.kind !== "record") return undefined;
  const lists = shape.fields.filter((field) => resolveShape(field.type.shape, types).kind === "list");
  const [only] = lists;
  return only && lists.length === 1 ? { path: [only.name], type: only.type } : undefined;
}

/** The place of the next cursor: a field of the response, or of a record in it. */
function nextCursor(answer: Reference, types: Types, kinds: readonly Shape["kind"][]): readonly string[] | undefined {
  const direct = cursorField(answer.shape, types, kinds);
  if (direct) return [direct.name];
  const shape = resolveShape(answer.shape, types);
  for (const field of shape.kind === "record" ? shape.fields : []) {
    const inner = cursorField(field.type.shape, types, kinds);
    if (inner) return [field.name, inner.name];
  }
  return undefined;
}

function cursorField(shape: Shape, types: Types, kinds: readonly Shape["kind"][]): Field | undefined {
  const record = resolveShape(shape, types);
  if (record.kind !== "record") return undefined;
  return record.fields.find(
    (field) =>
      /^(next(page)?(cursor|token|marker)|(next|end)cursor|cursor|nextpage|continuationtoken|next)$/.test(
        plain(field.name),
      ) && kinds.includes(resolveShape(field.type.shape, types).kind),
  );
}

function at(path: readonly string[], answer: Reference, types: Types): ListFound | undefined {
  let type: Reference = answer;
  for (const name of path) {
    const shape = resolveShape(type.shape, types);
    const field = shape.kind === "record" ? shape.fields.find((each) => each.name === name) : undefined;
    if (!field) return undefined;
    type = field.type;
  }
  return { path, type };
}
