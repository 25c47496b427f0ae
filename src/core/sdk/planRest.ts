import type { Content, Parameter, Reference, Response, RestContract, RestOperation } from "../contract/model.js";
import { reachedTypes } from "../contract/childReferences.js";
import { resolveReference, type TypeTable } from "../contract/resolveShape.js";
import { sortedBy } from "../text/sortedBy.js";
import { assignFaces } from "./assignFaces.js";
import { countUntyped } from "./countUntyped.js";
import { contractOwnNames, memberNameFrom, NameScope, typeNameFrom } from "./nameScope.js";
import type { PlannedArgument, PlannedResponse, RestCall, RestPlan, StandingParameter } from "./sdkPlan.js";
import { selectOperations, type Selection } from "./selectOperations.js";
import { TypePlanner } from "./typePlanner.js";
import { shapesOf } from "../rest/readRestContract.js";

export interface RestSettings extends Selection {
  readonly standing?: readonly string[];
}

/** Plans the calls of a REST contract and the types they reach. */
export function planRest(contract: RestContract, settings: RestSettings): RestPlan {
  const { kept } = selectOperations(contract.operations, settings);
  const reached = reachedTypes(kept.flatMap(shapesOf), (key) => contract.types.get(key)?.shape);
  const table = new Map([...contract.types].filter(([key]) => reached.has(key)));
  const planner = new TypePlanner(table, new NameScope(contractOwnNames(contract.name)));
  const functions = new NameScope(contractOwnNames(contract.name));
  const names = callNames(kept, functions);
  const standing = new Set(settings.standing ?? []);
  const calls = sortedBy(kept, (operation) => names.get(operation) ?? "").map((operation) =>
    planCall(operation, names.get(operation) ?? "", { planner, standing, functions }),
  );
  assignFaces(
    planner.types,
    calls.flatMap((call) => call.arguments.map((argument) => argument.type)),
    calls.flatMap(answeredBy),
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
    types: planner.types,
    untyped: countUntyped(planner.types.values(), calls.flatMap(referencesOf), new Set()),
  };
}

function referencesOf(call: RestCall): Reference[] {
  return [...call.arguments.map((argument) => argument.type), ...answeredBy(call)];
}

function answeredBy(call: RestCall): Reference[] {
  return [...call.answers, ...call.failures].flatMap((response) => (response.type ? [response.type] : []));
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
    if (contested(operation)) names.set(operation, scope.claim(memberNameFrom(nameFromPath(operation))));
  return names;
}

function nameFromPath({ method, path }: RestOperation): string {
  const parts = path.split("/").map((segment) => segment.replace(/\{([^{}]+)\}/g, " by $1 "));
  return [method, ...parts].join(" ");
}

interface CallContext {
  readonly planner: TypePlanner;
  readonly standing: ReadonlySet<string>;
  /** Names of the contract's functions. */
  readonly functions: NameScope;
}

function planCall(operation: RestOperation, name: string, { planner, standing, functions }: CallContext): RestCall {
  const typeName = typeNameFrom(name);
  const isSuccess = (response: Response): boolean => response.status.startsWith("2");
  const declared = operation.responses.filter(isSuccess);
  const fallback = operation.responses.filter((response) => response.status === "default");
  // Without any 2xx, `default` is all that is said about success.
  const answers = declared.length > 0 ? declared : fallback;
  const failures = operation.responses.filter((response) => !isSuccess(response) && !/^[13]/.test(response.status));
  const several = answers.length > 1;
  const argumentTypes = planArguments(operation, typeName, planner, standing);
  const answerTypes = answers.map((response) =>
    planResponse(response, planner, `${typeName}Answer${several ? response.status : ""}`),
  );
  return {
    name,
    typeNames: {
      args: planner.scope.claim(`${typeName}Args`),
      answer: planner.scope.claim(`${typeName}Answer`),
      failure: planner.scope.claim(`${typeName}Failure`),
    },
    guard: functions.claim(`is${typeName}Failure`),
    group: operation.group,
    operation,
    arguments: argumentTypes,
    answers: answerTypes,
    failures: failures.map((response) =>
      planResponse(response, planner, `${typeName}Failure${response.status === "default" ? "Other" : response.status}`),
    ),
  };
}

const formsByPreference: readonly Content["form"][] = ["json", "multipart", "urlencoded", "text", "bytes"];

/** The content a call uses where a contract offers several: the one a client handles best. */
export function preferredContent(contents: readonly Content[]): Content | undefined {
  for (const form of formsByPreference) {
    const found = contents.find((content) => content.form === form);
    if (found) return found;
  }
  return undefined;
}

/**
 * The type of a content as its form lets it be: what is written as text is text, bytes are bytes, whatever a schema
 * that was meant for JSON says about them.
 */
function typeByForm({ form, type }: Content, types: TypeTable): Reference {
  const { shape, nullable } = resolveReference(type, types);
  if (form === "bytes") return { shape: { kind: "bytes" }, nullable: false };
  if (form !== "text") return type;
  const isText =
    shape.kind === "text" ||
    (shape.kind === "literal" && typeof shape.value === "string") ||
    (shape.kind === "choice" && shape.values.every(({ value }) => typeof value === "string"));
  if (!isText) return { shape: { kind: "text" }, nullable: false };
  // There is no null in a text; a name that admits null is replaced by what it stands for.
  return { shape: nullable ? shape : type.shape, nullable: false };
}

function planResponse(response: Response, planner: TypePlanner, name: string): PlannedResponse {
  const content = preferredContent(response.contents);
  const words = response.description === undefined ? {} : { description: response.description };
  if (!content || response.status === "204") return { status: response.status, form: "none", ...words };
  return {
    status: response.status,
    form: content.form,
    mediaType: content.mediaType,
    type: planner.reference(typeByForm(content, planner.table), "answer", name),
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
  const taken = new Set(["body"]);
  const planned: PlannedArgument[] = [];
  for (const location of ["path", "query", "header"] as const) {
    for (const parameter of operation.parameters.filter((each) => each.in === location)) {
      const name = argumentName(parameter, taken);
      taken.add(name);
      const isStanding = standing.has(parameter.name);
      planned.push({
        name,
        source: { kind: "parameter", parameter },
        type: planner.reference(parameter.type, "request", typeName + typeNameFrom(name)),
        required: parameter.required && !isStanding,
        standing: isStanding,
      });
    }
  }
  const content = operation.body && preferredContent(operation.body.contents);
  if (operation.body && content) {
    const type = planner.reference(typeByForm(content, planner.table), "request", `${typeName}Body`);
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
