import type { Choice, Field, RecordShape, Reference, Shape, UnionShape } from "../../../contract/model.js";
import type { ContractNames } from "../../../sdk/contractNames.js";
import { choiceNames, memberNames, unionNames } from "../../../sdk/lower/values/partNames.js";
import { NameScope, type NameClash } from "../../../sdk/nameScope.js";
import type {
  ContractPlan,
  GraphqlCall,
  PlannedArgument,
  PlannedSent,
  PlannedType,
  RestCall,
} from "../../../sdk/sdkPlan.js";
import { callParts, sentNames, type CallParts } from "../../callParts.js";
import { namingOfCalls } from "../../namingOfCalls.js";
import { nestedTypeNames } from "../../nestedTypeNames.js";
import {
  caseIdentifier,
  contractNamespace,
  functionIdentifier,
  memberIdentifier,
  parameterIdentifier,
  typeIdentifier,
} from "./identifiers.js";

/** All names of a contract in a Swift SDK. */
export interface SwiftNames {
  /** The namespace and the connection, without the SDK's prefix. */
  readonly contract: ReturnType<typeof ownNames>;
  /** The name of every planned type by id, inside the namespace: "Berth", or "BerthAnswer.Boat" for a nested type. */
  readonly types: ReadonlyMap<string, string>;
  /** The ids of the types inside another one, by that one's id, in the plan's order. */
  readonly nested: ReadonlyMap<string, readonly string[]>;
  /** The name of every planned type by id, as one word. */
  readonly flat: ReadonlyMap<string, string>;
  /** Returns the name of the reader of a webhook or a callback. */
  readonly sent: (sent: PlannedSent) => string;
  readonly call: (call: RestCall | GraphqlCall) => CallParts;
  readonly clashes: readonly NameClash[];
}

const namesOf = new WeakMap<ContractPlan, SwiftNames>();

/** Names everything in a contract's plan. */
export function swiftNames(plan: ContractPlan): SwiftNames {
  const found = namesOf.get(plan);
  if (found) return found;
  const made = newNames(plan);
  namesOf.set(plan, made);
  return made;
}

/** Returns the names of a whole contract, from its name in the configuration. */
export function ownNames(contract: string) {
  const namespace = contractNamespace(contract);
  return { namespace, connection: `${namespace}Connection`, webhooks: `${namespace}Webhooks` };
}

function newNames(plan: ContractPlan): SwiftNames {
  const own = ownNames(plan.name);
  const scope = new NameScope([own.namespace, "Wire"]);
  const { types, flat, nested } = nestedTypeNames(plan, scope, {
    identifier: typeIdentifier,
    // A nested type would hide the namespaces in full names.
    reserved: [own.namespace, "Wire"],
    longestPath: Infinity,
  });
  const functions = new NameScope();
  const calls = callParts(plan, {
    scope,
    functions,
    typeIdentifier,
    functionIdentifier,
    hasTypesOfParts: false,
  });
  const webhooks = sentNames(plan, { scope, typeIdentifier });
  return {
    contract: own,
    types,
    flat,
    nested,
    sent: (sent) => webhooks.get(sent) ?? sent.name,
    call: (call) => {
      const found = calls.get(call);
      if (!found) throw new Error("The call belongs to another plan.");
      return found;
    },
    clashes: [...scope.clashes, ...functions.clashes].filter(({ wanted }) => !/(?:Body|Fails)$/.test(wanted)),
  };
}

/** Returns the names in a contract's part of an SDK, as far as code other than the printer needs them. */
export function contractNaming(plan: ContractPlan): ContractNames {
  return namingOfCalls(swiftNames(plan), argumentName);
}

/** Returns the name of an argument of a call. */
export function argumentName({ name, apart }: Pick<PlannedArgument, "name" | "apart">): string {
  return parameterIdentifier(name, apart);
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
  // Names in camelCase are unique, so they stay so unless one of them is changed.
  if ([...names.values()].some((name) => memberIdentifier(name) !== name)) {
    const wanted = [...names].map(([field, name]) => [field, memberIdentifier(name)] as const);
    const scope = new NameScope();
    const areFree = scope.claimAll(wanted.map(([, name]) => name));
    for (const [field, name] of wanted) names.set(field, areFree ? name : scope.claim(name, field.name));
  }
  const made = {
    of: (field: Field) => names.get(field) ?? field.name,
    // Few records need it, and there are thousands of records.
    get others() {
      return new NameScope(names.values()).claim("otherKeys");
    },
  };
  known.set(shape, made);
  return made;
}

/** Returns the names of an enum's constants. */
export function constantNames(values: readonly Choice[]): Map<Choice, string> {
  const scope = new NameScope();
  return new Map(
    [...choiceNames(values)].map(([choice, name]) => [
      choice,
      scope.claim(caseIdentifier(name), `${typeof choice.value} ${String(choice.value)}`),
    ]),
  );
}

/** Returns the names of a union's cases. */
export function unionCases(union: UnionShape, types: ReadonlyMap<string, PlannedType>): Map<Reference, string> {
  const scope = new NameScope(["other"]);
  const named = unionNames(union, types);
  return new Map(
    union.members.map((member, at) => {
      // A member without tag values stands for types that the schema does not have yet.
      const name = union.tag?.values[at]?.length === 0 ? "newer" : (named.get(member) ?? "");
      return [member, scope.claim(caseIdentifier(name), name)];
    }),
  );
}

/** Returns the names of the cases of an input of which exactly one field is given. */
export function oneOfCases(record: RecordShape): Map<Field, string> {
  const scope = new NameScope();
  return new Map(
    [...memberNames(record.fields)].map(([field, name]) => [field, scope.claim(caseIdentifier(name), field.name)]),
  );
}
