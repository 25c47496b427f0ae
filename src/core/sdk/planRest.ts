import type { Field, Parameter, Reference, Response, RestContract, RestOperation } from "../contract/model.js";
import { isStream } from "../contract/model.js";
import { reachedTypes } from "../contract/childReferences.js";
import { operationLabel } from "../contract/model.js";
import { resolveReference, type TypeTable } from "../contract/resolveShape.js";
import { sameReference } from "../contract/sameShape.js";
import { sortedBy } from "../text/sortedBy.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, memberNameFrom, NameScope, typeNameFrom } from "./nameScope.js";
import { isTextChoice, planContent, preferredContent } from "./planContent.js";
import { planSent, receivedBy, repliedTo } from "./planSent.js";
import type {
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
}

/** Plans the calls of a REST contract and the types they reach. */
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
  const sorted = sortedBy(kept, (operation) => names.get(operation) ?? "");
  // Claimed for all before anything inside them is named, so that the order of calls plays no part.
  const own = new Map(
    sorted.map((operation) => [operation, ownNames(names.get(operation) ?? "", planner.scope, functions)]),
  );
  const calls = sorted.map((operation) => planCall(operation, own.get(operation) ?? noNames, { planner, standing }));
  const sent = planSent(contract.webhooks, calls, planner);
  planner.settleNames();
  assignFaces(
    planner.types,
    [...calls.flatMap((call) => call.arguments.map((argument) => argument.type)), ...sent.flatMap(repliedTo)],
    [...calls.flatMap(answeredBy), ...sent.flatMap(receivedBy)],
  );
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
    untyped: countUntyped(
      planner.types.values(),
      [...calls.flatMap(referencesOf), ...sent.flatMap((each) => [...repliedTo(each), ...receivedBy(each)])],
      new Set(),
    ),
  };
}

function referencesOf(call: RestCall): Reference[] {
  return [...call.arguments.map((argument) => argument.type), ...answeredBy(call)];
}

function answeredBy(call: RestCall): Reference[] {
  return [
    ...[...call.answers, ...call.failures].flatMap((response) => (response.type ? [response.type] : [])),
    ...call.headers.map((header) => header.field.type),
  ];
}

/** The operationId where it is unique, else method and path: both are the operation's own, never its neighbours'. */
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
    if (contested(operation))
      names.set(operation, scope.claim(memberNameFrom(nameFromPath(operation)), operationLabel(operation)));
  return names;
}

function nameFromPath({ method, path }: RestOperation): string {
  const parts = path.split("/").map((segment) => segment.replace(/\{([^{}]+)\}/g, " by $1 "));
  return [method, ...parts].join(" ");
}

type OwnNames = Pick<RestCall, "name" | "typeNames" | "guard" | "headersReader">;

const noNames: OwnNames = {
  name: "",
  typeNames: { args: "", answer: "", failure: "", headers: "" },
  guard: "",
  headersReader: "",
};

/** Everything that is called after a call. */
function ownNames(name: string, types: NameScope, functions: NameScope): OwnNames {
  const typeName = typeNameFrom(name);
  const type = (suffix: string): string => types.claim(typeName + suffix, `${name} ${suffix}`);
  return {
    name,
    typeNames: { args: type("Args"), answer: type("Answer"), failure: type("Failure"), headers: type("Headers") },
    guard: functions.claim(`is${typeName}Failure`, `${name} guard`),
    headersReader: functions.claim(`${name}Headers`, `${name} headers`),
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
  // Without any 2xx, `default` is all that is said about success.
  const answers = declared.length > 0 ? declared : fallback;
  const failures = operation.responses.filter((response) => !isSuccess(response) && !/^[13]/.test(response.status));
  const several = answers.length > 1;
  const argumentTypes = planArguments(operation, typeName, planner, standing);
  const headers = planHeaders(operation, typeName, planner);
  const answerTypes = answers.map((response) =>
    planResponse(response, planner, answerName(response, typeName, own.typeNames.answer, several)),
  );
  return {
    ...own,
    headers,
    group: operation.group,
    operation,
    arguments: argumentTypes,
    answers: answerTypes,
    failures: failures.map((response) =>
      planResponse(withoutStreams(response), planner, [
        typeName,
        "Failure",
        response.status === "default" ? "Other" : response.status,
      ]),
    ),
  };
}

/** Headers of all responses; one that two responses type differently is the text that was sent. */
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

/** A header is a text; what a reader makes of it are single values and lists of them. */
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

/** What an inline type is called that stands right in an answer: the answer's own name, where it is all of it. */
function answerName(
  { status, contents }: Response,
  typeName: string,
  own: string,
  several: boolean,
): readonly string[] | string {
  if (several) return [typeName, "Answer", status];
  return preferredContent(contents)?.type.nullable === true ? [typeName, "Answer", "Content"] : own;
}

function planResponse(response: Response, planner: TypePlanner, name: readonly string[] | string): PlannedResponse {
  const content = preferredContent(response.contents);
  const words = response.description === undefined ? {} : { description: response.description };
  if (!content || response.status === "204") return { status: response.status, form: "none", ...words };
  return {
    status: response.status,
    form: content.form,
    mediaType: content.mediaType,
    type: planContent(content, "answer", name, planner),
    ...words,
  };
}

/** One flat object: path parameters keep their name, then query, then header; `body` is reserved. */
function planArguments(
  operation: RestOperation,
  typeName: string,
  planner: TypePlanner,
  standing: ReadonlySet<string>,
): PlannedArgument[] {
  const taken = new Set(["body", ...inheritedNames]);
  const planned: PlannedArgument[] = [];
  for (const location of ["path", "query", "querystring", "header", "cookie"] as const) {
    for (const parameter of operation.parameters.filter((each) => each.in === location)) {
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
  const content = operation.body && preferredContent(operation.body.contents);
  if (operation.body && content) {
    const type = planContent(content, "request", [typeName, "Body"], planner);
    planned.push({
      name: "body",
      source: { kind: "body", body: operation.body, content },
      type,
      required: operation.body.required,
      standing: false,
    });
  }
  return planned;
}

/** What every object inherits: an argument that may be absent would then be there all the same. */
const inheritedNames = [
  "constructor",
  "hasOwnProperty",
  "isPrototypeOf",
  "propertyIsEnumerable",
  "toLocaleString",
  "toString",
  "valueOf",
];

function argumentName(parameter: Parameter, taken: ReadonlySet<string>): string {
  const plain = memberNameFrom(parameter.name);
  if (!taken.has(plain)) return plain;
  const located = plain + typeNameFrom(parameter.in);
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
