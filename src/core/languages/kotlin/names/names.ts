import type { Choice, Field, RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import { choiceNames, memberNames, unionNames } from "../../../sdk/lower/values/partNames.js";
import { NameScope, type NameClash } from "../../../sdk/nameScope.js";
import type { ContractNames } from "../../../sdk/contractNames.js";
import type {
  ContractPlan,
  GraphqlCall,
  PlannedArgument,
  PlannedSent,
  PlannedType,
  RestCall,
} from "../../../sdk/sdkPlan.js";
import { pascalCase } from "../../../text/words.js";
import { callParts, sentNames, type CallParts } from "../../callParts.js";
import { namingOfCalls } from "../../namingOfCalls.js";
import { nestedTypeNames } from "../../nestedTypeNames.js";
import { answerKeys, isAnswer } from "../calls/answerKeys.js";
import {
  constantIdentifier,
  memberIdentifier,
  nestedIdentifier,
  takenFunctions,
  takenProperties,
  typeIdentifier,
} from "./identifiers.js";

/** All names of a contract in a Kotlin SDK. */
export interface KotlinNames {
  readonly contract: ReturnType<typeof ownNames>;
  /** The name of every planned type by id, and of its reader and writer. */
  readonly types: ReadonlyMap<string, string>;
  /** The ids of the types inside the class of another one, by that one's id, in the plan's order. */
  readonly nested: ReadonlyMap<string, readonly string[]>;
  readonly forms: ReadonlyMap<string, string>;
  readonly checks: ReadonlyMap<string, string>;
  /** The name of the function that creates a sample of a type, by its id. */
  readonly samples: ReadonlyMap<string, string>;
  /** Returns the name of the reader of a webhook or a callback. */
  readonly sent: (sent: PlannedSent) => string;
  readonly call: (call: RestCall | GraphqlCall) => CallParts;
  /** Returns the JVM's name for the functions of a file, by the file's name in the plan. */
  readonly facade: (file: string) => string;
  readonly clashes: readonly NameClash[];
}

const namesOf = new WeakMap<ContractPlan, KotlinNames>();

/** Names everything in a contract's plan. */
export function kotlinNames(plan: ContractPlan): KotlinNames {
  const found = namesOf.get(plan);
  if (found) return found;
  const made = newNames(plan);
  namesOf.set(plan, made);
  return made;
}

function newNames(plan: ContractPlan): KotlinNames {
  const own = ownNames(plan.name);
  const scope = new NameScope(Object.values(own));
  const { types, flat, nested } = nestedTypeNames(plan, scope, {
    identifier: typeIdentifier,
    reserved: ["Other"],
    longestPath,
  });
  if (plan.protocol === "graphql") nameAnswers([...plan.types.values()]);
  const functions = new NameScope(takenFunctions);
  const calls = callParts(plan, {
    scope,
    functions,
    typeIdentifier,
    functionIdentifier: (name) => memberIdentifier(name, takenFunctions, "Call"),
    hasTypesOfParts: true,
  });
  const forms = new Map([...flat].map(([id, name]) => [id, scope.claim(typeIdentifier(`${name}Form`), `${id} form`)]));
  const checks = new Map(
    [...flat].map(([id, name]) => [id, scope.claim(typeIdentifier(`${name}Check`), `${id} check`)]),
  );
  const webhooks = sentNames(plan, { scope, typeIdentifier });
  const facades = new Map<string, string>();
  return {
    contract: own,
    types,
    nested,
    forms,
    checks,
    samples: new Map([...flat].map(([id, name]) => [id, `sample${name}`])),
    sent: (sent) => webhooks.get(sent) ?? sent.name,
    call: (call) => {
      const found = calls.get(call);
      if (!found) throw new Error("The call belongs to another plan.");
      return found;
    },
    facade: (file) => {
      const known = facades.get(file);
      if (known !== undefined) return known;
      const name = scope.claim(`${pascalCase(file) || "Own"}Calls`, `${file} calls`);
      facades.set(file, name);
      return name;
    },
    clashes: [...scope.clashes, ...functions.clashes].filter(
      ({ wanted }) => !/(?:Form|Check|Reading|Body|Fails)$/.test(wanted),
    ),
  };
}

/** The largest length of a nested class's full name: its file has that name, and file systems allow 255 bytes. */
const longestPath = 160;

/** Returns the names of a whole contract, from its name in the configuration. */
export function ownNames(contract: string) {
  const name = pascalCase(contract) || "Api";
  const safe = /^\p{L}/u.test(name) ? name : `_${name}`;
  return {
    connection: `${safe}Connection`,
    auth: `${safe}Auth`,
    servers: `${safe}Servers`,
    variables: `${safe}ServerVariables`,
    fakes: `${safe}Fakes`,
    tuples: `${safe}Tuples`,
    checks: `${safe}Checks`,
    testing: `${safe}Testing`,
    webhooks: `${safe}Webhooks`,
  };
}

/** Returns the names in a contract's part of an SDK, as far as code other than the printer needs them. */
export function contractNaming(plan: ContractPlan): ContractNames {
  return namingOfCalls(kotlinNames(plan), argumentName);
}

/** The parameters of every call besides the contract's. */
const ownParameters: ReadonlySet<string> = new Set(["options"]);

/** Returns the name of an argument of a call. */
export function argumentName({ name, apart }: Pick<PlannedArgument, "name" | "apart">): string {
  return ownParameters.has(name)
    ? memberIdentifier(apart, ownParameters, "Value")
    : memberIdentifier(name, new Set(), "");
}

/** The names of a record's fields, and of the property for its other keys. */
export interface RecordNames {
  readonly of: (field: Field) => string;
  readonly others: string;
}

const known = new WeakMap<Shape, RecordNames>();

/** Returns the names of a record's members. */
export function recordNames(shape: RecordShape): RecordNames {
  const found = known.get(shape);
  if (found) return found;
  const names = memberNames(shape.fields);
  const made = recordNamesFrom((field) => names.get(field) ?? field.name, names);
  known.set(shape, made);
  return made;
}

/** Names the fields of responses to queries by the keys of the whole contract. */
function nameAnswers(types: readonly PlannedType[]): void {
  const keys = answerKeys(types);
  for (const { shape, id } of types)
    if (shape.kind === "record" && isAnswer(id))
      known.set(
        shape,
        recordNamesFrom(({ name }) => keys.get(name) ?? name, keys),
      );
}

function recordNamesFrom(nameOf: (field: Field) => string, all: ReadonlyMap<unknown, string>): RecordNames {
  return {
    of: (field) => memberIdentifier(nameOf(field), takenProperties, "Value"),
    // Few records need it, and there are thousands of records.
    get others() {
      return new NameScope(all.values()).claim("otherKeys");
    },
  };
}

/** Returns the names of an enum's constants. */
export function constantNames(values: readonly Choice[]): Map<Choice, string> {
  return new Map([...choiceNames(values)].map(([choice, name]) => [choice, constantIdentifier(name)]));
}

/**
 * Returns the names of an input's fields of which exactly one is given: each has a class of its own.
 *
 * @param outer the name of the input, which a class with the same name would hide
 */
export function oneOfClassNames(record: RecordShape, outer: string): Map<Field, string> {
  const scope = new NameScope([outer]);
  return new Map(
    [...memberNames(record.fields)].map(([field, name]) => {
      const own = nestedIdentifier(constantIdentifier(name));
      return [field, scope.claim(scope.isTaken(own) ? `${own}Value` : own, field.name)];
    }),
  );
}

/** Returns the names of a union's members that have a class of their own. */
export function memberClassNames(union: UnionShape, types: ReadonlyMap<string, PlannedType>): Map<Reference, string> {
  return new Map(
    [...unionNames(union, types)].map(([member, name]) => {
      const wanted = typeIdentifier(constantIdentifier(name));
      return [member, wanted === "Other" ? "OtherShape" : wanted];
    }),
  );
}
