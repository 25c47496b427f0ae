import type { Content, Field, Parameter, Reference, Response, RestContract, RestOperation } from "../contract/model.js";
import { isStream } from "../contract/model.js";
import { reachedTypes } from "../contract/reachedTypes.js";
import { operationLabel } from "../contract/model.js";
import { resolveReference, type TypeTable } from "../contract/resolveShape.js";
import { sameReference } from "../contract/sameShape.js";
import { sortedBy } from "../text/sortedBy.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, memberNameFrom, NameScope, typeNameFrom } from "./nameScope.js";
import { isTextChoice, offeredContents, planContent, preferredContent } from "./planContent.js";
import { planPaging, type PagingSettings } from "./planPaging.js";
import { planSent, receivedBy, repliedTo } from "./planSent.js";
import type {
  AnswerChoice,
  PlannedArgument,
  PlannedHeader,
  PlannedResponse,
  RestCall,
  RestPlan,
  StandingParameter,
} from "./sdkPlan.js";
import { selectOperations, type Selection } from "./selectOperations.js";
import { TypePlanner } from "./typePlanner.js";
import { shapesOf } from "../rest/readRestContract.js";

export interface RestSettings extends Selection {
  readonly standing?: readonly string[];
  readonly pages?: PagingSettings;
}

/**
 * Plans the calls of a REST contract and the types they use.
 *
 * @param settings the configured parts of the contract's plan
 */
export function planRest(contract: RestContract, settings: RestSettings): RestPlan {
  const { kept } = selectOperations(contract.operations, settings);
  const sentAlong = kept.flatMap((operation) => operation.callbacks.map((each) => each.operation));
  const webhooks = contract.webhooks.map((each) => each.operation);
  const reached = reachedTypes(
    [...kept, ...sentAlong, ...webhooks].flatMap(shapesOf),
    (key) => contract.types.get(key)?.shape,
  );
  const table = new Map([...contract.types].filter(([key]) => reached.has(key)));
  const planner = new TypePlanner(table, new NameScope(contractOwnNames(contract.name)));
  const functions = new NameScope(contractOwnNames(contract.name));
  const names = callNames(kept, functions);
  const standing = new Set(settings.standing ?? []);
  for (const operation of kept) {
    const twin = asStream(operation);
    if (twin)
      names.set(twin, functions.claim(`${names.get(operation) ?? ""}Stream`, `${operationLabel(operation)} stream`));
  }
  const sorted = sortedBy(names.keys(), (operation) => names.get(operation) ?? "");
  // They are claimed for all operations before the types inside them are named, so that the order of calls has no
  // effect.
  const own = new Map(sorted.map((operation) => [operation, ownNames(names.get(operation) ?? "", planner.scope)]));
  const calls = sorted
    .map((operation) => planCall(operation, own.get(operation) ?? noNames, { planner, standing }))
    .map((call) => {
      const paging = planPaging(call, planner.types, settings.pages ?? {});
      return paging ? { ...call, paging } : call;
    });
  const sent = planSent(contract.webhooks, calls, planner);
  planner.settleNames();
  const asked = [...calls.flatMap(askedBy), ...sent.flatMap(repliedTo)];
  assignFaces(planner.types, asked, [...calls.flatMap(answeredBy), ...sent.flatMap(receivedBy)]);
  return {
    protocol: "rest",
    name: contract.name,
    title: contract.title,
    version: contract.version,
    ...(contract.description === undefined ? {} : { description: contract.description }),
    servers: contract.servers,
    authSchemes: new Map(
      [...contract.authSchemes].filter(([name]) => kept.some((operation) => operation.auth.flat().includes(name))),
    ),
    standing: standingParameters(calls),
    calls,
    sent,
    tags: contract.tags,
    types: planner.types,
    clashes: [...functions.clashes, ...planner.scope.clashes],
    untyped: countUntyped(
      planner.types.values(),
      [...asked, ...calls.flatMap(answeredOnce), ...sent.flatMap(receivedBy)],
      new Set(),
    ),
  };
}

/** The responses of a call. A choice of media types repeats the default one. */
function answeredOnce(call: RestCall): Reference[] {
  return [
    ...typesOf(call.answers),
    ...typesOf(call.failures),
    ...call.answerChoices.slice(1).flatMap((choice) => typesOf(choice.answers)),
    ...call.headers.map((header) => header.field.type),
  ];
}

function typesOf(responses: readonly PlannedResponse[]): Reference[] {
  const types: Reference[] = [];
  for (const { type } of responses) if (type) types.push(type);
  return types;
}

function askedBy(call: RestCall): Reference[] {
  return call.arguments.flatMap(({ source, type }) =>
    source.kind === "body" ? [type, ...source.others.map((other) => other.type)] : [type],
  );
}

function answeredBy(call: RestCall): Reference[] {
  return [...answeredOnce(call), ...typesOf(call.answerChoices[0]?.answers ?? [])];
}

/** The same operation with only its stream, if it responds either as a whole or item by item. */
function asStream(operation: RestOperation): RestOperation | undefined {
  const streamsOf = (response: Response): Response | undefined => {
    const streams = response.contents.filter(({ form }) => isStream(form));
    const preferred = preferredContent(response.contents);
    const isSuccess = /^(2|default)/.test(response.status);
    if (!isSuccess || streams.length === 0 || !preferred || isStream(preferred.form)) return undefined;
    return { ...response, contents: streams };
  };
  if (!operation.responses.some(streamsOf)) return undefined;
  return { ...operation, responses: operation.responses.map((response) => streamsOf(response) ?? response) };
}

/** The operationId if it is unique, otherwise method and path. Both belong to the operation itself, never to others. */
function callNames(operations: readonly RestOperation[], scope: NameScope): Map<RestOperation, string> {
  const claims = new Map<string, number>();
  const wanted = (operation: RestOperation): string => memberNameFrom(operation.operationId ?? nameFromPath(operation));
  for (const operation of operations) {
    const name = wanted(operation).toLowerCase();
    claims.set(name, (claims.get(name) ?? 0) + 1);
  }
  const names = new Map<RestOperation, string>();
  const contested = (operation: RestOperation): boolean => (claims.get(wanted(operation).toLowerCase()) ?? 0) > 1;
  for (const operation of operations) if (!contested(operation)) names.set(operation, scope.claim(wanted(operation)));
  for (const operation of operations)
    if (contested(operation)) {
      const name = memberNameFrom(nameFromPath(operation));
      names.set(operation, scope.claim(name, operationLabel(operation), wanted(operation)));
    }
  return names;
}

function nameFromPath({ method, path }: RestOperation): string {
  const parts = path.split("/").map((segment) => segment.replace(/\{([^{}]+)\}/g, " by $1 "));
  return [method, ...parts].join(" ");
}

type OwnNames = Pick<RestCall, "name" | "typeNames">;

const noNames: OwnNames = {
  name: "",
  typeNames: { args: "", answer: "", failure: "", headers: "", answers: "" },
};

/** All names that follow a call's name. */
function ownNames(name: string, types: NameScope): OwnNames {
  const typeName = typeNameFrom(name);
  const type = (suffix: string): string => types.claim(typeName + suffix, `${name} ${suffix}`);
  return {
    name,
    typeNames: {
      args: type("Args"),
      answer: type("Answer"),
      failure: type("Failure"),
      headers: type("Headers"),
      answers: type("Answers"),
    },
  };
}

interface CallContext {
  readonly planner: TypePlanner;
  readonly standing: ReadonlySet<string>;
}

function planCall(operation: RestOperation, own: OwnNames, { planner, standing }: CallContext): RestCall {
  const typeName = typeNameFrom(own.name);
  const isSuccess = (response: Response): boolean => response.status.startsWith("2");
  const declared = operation.responses.filter(isSuccess);
  const fallback = operation.responses.filter((response) => response.status === "default");
  // Without any 2xx, only `default` describes successes.
  const answers = declared.length > 0 ? declared : fallback;
  const failures = operation.responses.filter((response) => !isSuccess(response) && !/^[13]/.test(response.status));
  const several = answers.length > 1;
  const argumentTypes = planArguments(operation, typeName, { planner, standing });
  const headers = planHeaders(operation, typeName, planner);
  const nameOf = (response: Response): readonly string[] | string =>
    answerName(response, typeName, { own: own.typeNames.answer, several });
  const usual = answers.map((response): UsualAnswer => {
    const content = preferredContent(response.contents);
    return { response, content, planned: planResponse(response, content, { planner, name: nameOf(response) }) };
  });
  return {
    ...own,
    headers,
    group: operation.group,
    operation,
    arguments: argumentTypes,
    answers: usual.map(({ planned }) => planned),
    answerChoices: planChoices(usual, typeName, planner),
    failures: failures.map((response) => {
      const whole = withoutStreams(response);
      const name = [typeName, "Failure", response.status === "default" ? "Other" : response.status];
      return planResponse(whole, preferredContent(whole.contents), { planner, name });
    }),
  };
}

/** A response by default. */
interface UsualAnswer {
  readonly response: Response;
  readonly content: Content | undefined;
  readonly planned: PlannedResponse;
}

/**
 * Plans the response by requested media type; empty if there is no choice. The default content is planned once, because
 * types inside it would otherwise have two names.
 */
function planChoices(usual: readonly UsualAnswer[], typeName: string, planner: TypePlanner): AnswerChoice[] {
  const offered = usual.flatMap(({ response }) => offeredContents(response.contents, planner.table));
  const mediaTypes = [...new Set(offered.map(({ mediaType }) => mediaType))];
  const first = usual.find(({ content }) => content !== undefined)?.content;
  if (mediaTypes.length < 2 || !first || isStream(first.form)) return [];
  return [first.mediaType, ...mediaTypes.filter((mediaType) => mediaType !== first.mediaType)].map((mediaType) => ({
    mediaType,
    answers: usual.map(({ response, content, planned }) => {
      const asked = response.contents.find((each) => each.mediaType === mediaType);
      if (asked === undefined || asked === content) return planned;
      return planResponse(response, asked, { planner, name: [typeName, "Answer", typeNameFrom(mediaType)] });
    }),
  }));
}

/** Plans the headers of all responses. A header with different types in two responses is a string. */
function planHeaders(operation: RestOperation, typeName: string, planner: TypePlanner): PlannedHeader[] {
  const found = new Map<string, Field>();
  for (const field of operation.responses.flatMap((response) => response.headers)) {
    const key = field.name.toLowerCase();
    const known = found.get(key);
    const isSame = known === undefined || sameReference(known.type, field.type);
    found.set(key, isSame ? (known ?? field) : { ...known, type: { shape: { kind: "text" }, nullable: false } });
  }
  const names = new NameScope();
  return [...found.values()].map((field) => {
    const name = names.claim(memberNameFrom(field.name), field.name);
    const type = planner.reference(headerType(field.type, planner.table), "answer", [
      typeName,
      "Header",
      typeNameFrom(name),
    ]);
    return { name, field: { ...field, type } };
  });
}

/** A header is text. Readers can return single values and lists of them. */
function headerType(type: Reference, types: TypeTable): Reference {
  const { shape } = resolveReference(type, types);
  const item = shape.kind === "list" ? resolveReference(shape.item, types).shape : shape;
  const isSimple = ["text", "integer", "number", "boolean"].includes(item.kind) || isTextChoice(item);
  return isSimple ? { shape: type.shape, nullable: false } : { shape: { kind: "text" }, nullable: false };
}

/** A failure is read as a whole. */
function withoutStreams(response: Response): Response {
  return { ...response, contents: response.contents.filter((content) => !isStream(content.form)) };
}

/** The name of an inline type directly in a response: the response's own name, if it is the whole response. */
function answerName(
  { status, contents }: Response,
  typeName: string,
  { own, several }: { readonly own: string; readonly several: boolean },
): readonly string[] | string {
  if (several) return [typeName, "Answer", status];
  return preferredContent(contents)?.type.nullable === true ? [typeName, "Answer", "Content"] : own;
}

function planResponse(
  response: Response,
  content: Content | undefined,
  { planner, name }: { readonly planner: TypePlanner; readonly name: readonly string[] | string },
): PlannedResponse {
  const { status, description } = response;
  const planned: { -readonly [K in keyof PlannedResponse]: PlannedResponse[K] } = { status, form: "none" };
  if (content && status !== "204") {
    planned.form = content.form;
    planned.mediaType = content.mediaType;
    planned.type = planContent(content, "answer", { name, planner });
  }
  if (description !== undefined) planned.description = description;
  return planned;
}

/** Plans one flat object: path parameters keep their name, then query, then header. `body` is reserved. */
function planArguments(
  operation: RestOperation,
  typeName: string,
  { planner, standing }: { readonly planner: TypePlanner; readonly standing: ReadonlySet<string> },
): PlannedArgument[] {
  const contents = operation.body ? offeredContents(operation.body.contents, planner.table) : [];
  const choices = operation.responses.flatMap((response) => offeredContents(response.contents, planner.table));
  const taken = new Set([
    "body",
    ...(contents.length > 1 ? ["bodyType"] : []),
    ...(choices.length > 1 ? ["answerType"] : []),
  ]);
  const planned: Omit<PlannedArgument, "apart">[] = [];
  for (const location of ["path", "query", "querystring", "header", "cookie"] as const) {
    for (const parameter of operation.parameters) {
      if (parameter.in !== location) continue;
      const name = argumentName(parameter, taken);
      taken.add(name);
      const isStanding = standing.has(parameter.name);
      planned.push({
        name,
        source: { kind: "parameter", parameter },
        type: planner.reference(parameter.type, "request", [typeName, typeNameFrom(name)]),
        required: parameter.required && !isStanding,
        standing: isStanding,
      });
    }
  }
  const [content, ...others] = contents;
  if (operation.body && content) {
    const type = planContent(content, "request", { name: [typeName, "Body"], planner });
    planned.push({
      name: "body",
      source: {
        kind: "body",
        body: operation.body,
        content,
        others: others.map((other) => ({
          content: other,
          type: planContent(other, "request", { name: [typeName, "Body", typeNameFrom(other.mediaType)], planner }),
        })),
      },
      type,
      required: operation.body.required,
      standing: false,
    });
  }
  // Decided last, so that these take no name from a later argument.
  return planned.map((argument): PlannedArgument => {
    const { source, name } = argument;
    const apart = source.kind === "parameter" ? locatedName(source.parameter, taken) : name;
    taken.add(apart);
    return { ...argument, apart };
  });
}

function argumentName(parameter: Parameter, taken: ReadonlySet<string>): string {
  const plain = memberNameFrom(parameter.name);
  return taken.has(plain) ? locatedName(parameter, taken) : plain;
}

/** A name with the location of the parameter. */
function locatedName(parameter: Parameter, taken: ReadonlySet<string>): string {
  const located = memberNameFrom(parameter.name) + typeNameFrom(parameter.in);
  let name = located;
  for (let number = 2; taken.has(name); number++) name = `${located}${String(number)}`;
  return name;
}

function standingParameters(calls: readonly RestCall[]): StandingParameter[] {
  const found = new Map<string, StandingParameter>();
  for (const argument of calls.flatMap((call) => call.arguments)) {
    if (!argument.standing || argument.source.kind !== "parameter" || found.has(argument.source.parameter.name))
      continue;
    const { name, description } = argument.source.parameter;
    found.set(name, { name, type: argument.type, ...(description === undefined ? {} : { description }) });
  }
  return sortedBy(found.values(), (each) => each.name);
}
