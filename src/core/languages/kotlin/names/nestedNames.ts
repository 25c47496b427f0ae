import type { Field, UnionShape } from "../../../contract/model.js";
import { referenceSignature } from "../../../contract/sameShape.js";
import { isAnswer } from "../calls/answerKeys.js";
import type { ContractContext, FileContext } from "../contractContext.js";

/**
 * Returns a type as written inside a class. A type with the name of a nested class is written with its package.
 *
 * @param nested names of the classes nested there
 */
export function besideNested(type: string, nested: Iterable<string>, context: FileContext): string {
  const hidden = new Set(nested);
  if (hidden.size === 0) return type;
  return type.replace(wholeNames, (path) => {
    const [name = ""] = path.split(".");
    if (!hidden.has(name)) return path;
    return (context.uses.wholeName(name) ?? `${context.package}.${name}`) + path.slice(name.length);
  });
}

const wholeNames = /(?<![\w.`])[\p{L}_][\p{L}\p{Nd}_]*(?:\.[\p{L}_][\p{L}\p{Nd}_]*)*/gu;

/** Returns the name with which a type's class is declared. */
export function declaredName(id: string, { names }: ContractContext): string {
  const path = names.types.get(id) ?? "";
  return path.slice(path.lastIndexOf(".") + 1);
}

/**
 * Returns a type as written inside the class of another one. A nested type has its short name there, and a hidden one
 * its full name.
 *
 * @param id the type of that class
 * @param more names nested there besides those of planned types
 */
export function spelledInside(
  type: string,
  id: string,
  { context, more = [] }: { readonly context: FileContext; readonly more?: readonly string[] | undefined },
): string {
  if (context.names.nested.size === 0 && more.length === 0) return type;
  const own = `${context.names.types.get(id) ?? ""}.`;
  const beside = besideNested(type, [...hiddenIn(id, context), ...more], context);
  if (!beside.includes(own)) return beside;
  return beside.replace(wholeNames, (path) => (path.startsWith(own) ? path.slice(own.length) : path));
}

/** Returns a type as written before the body of a nested class. */
export function spelledBefore(type: string, id: string, context: FileContext): string {
  const outer = context.contract.types.get(id)?.inside?.type;
  if (outer === undefined || !isNested(id, context)) return type;
  const hidden = hiddenIn(outer, context);
  if (type !== context.names.types.get(outer)) return besideNested(type, hidden, context);
  const short = declaredName(outer, context);
  const isHidden = (context.names.nested.get(outer) ?? []).some((each) => declaredName(each, context) === short);
  return isHidden ? besideNested(type, hidden, context) : short;
}

function isNested(id: string, { names }: ContractContext): boolean {
  return names.types.get(id)?.includes(".") === true;
}

/** The names of the classes nested in that of a type, in those around it, and in all their interfaces. */
function hiddenIn(id: string, context: ContractContext): string[] {
  if (context.names.nested.size === 0) return [];
  const around = [id];
  for (let at = id; isNested(at, context);) {
    at = context.contract.types.get(at)?.inside?.type ?? "";
    around.push(at);
  }
  const scopes = new Set(around);
  // A set that grows during the loop is read to its end.
  for (const each of scopes) for (const of of interfacesOf(each, context)) scopes.add(of);
  return [...scopes].flatMap((each) =>
    (context.names.nested.get(each) ?? []).map((inner) => declaredName(inner, context)),
  );
}

/** Returns the ids of a type's interfaces: unions that it is a member of, and fragments that it has. */
export function interfacesOf(id: string, { unions, fragments }: ContractContext): string[] {
  return [...(unions.of.get(id) ?? []), ...(fragments.of.get(id) ?? [])];
}

/** Returns the JSON names of the properties that a type has from its interfaces. */
export function inheritedFields(id: string, context: ContractContext): Set<string> {
  const above = new Set(interfacesOf(id, context));
  const found = new Set<string>();
  // A set that grows during the loop is read to its end.
  for (const each of above) {
    for (const name of interfaceFields(each, context)) found.add(name);
    for (const more of interfacesOf(each, context)) above.add(more);
  }
  return found;
}

/** Returns the JSON names of the properties of an interface: of a fragment, or of a union in a response. */
export function interfaceFields(id: string, context: ContractContext): string[] {
  const shape = context.contract.types.get(id)?.shape;
  if (shape?.kind === "union" && isOfQuery(id, context)) return sharedFields(shape, context).map(({ name }) => name);
  if (shape?.kind !== "record" || !context.fragments.ids.has(id)) return [];
  // A member of a union has its type name only for that union.
  const isMember = (context.unions.of.get(id) ?? []).length > 0 && shape.objects?.length !== 0;
  // A field that only distinguishes types is not selected if only one type is possible.
  return shape.fields.flatMap(({ name, added }) =>
    name === "__typename" && (isMember || added === true) ? [] : [name],
  );
}

/**
 * Returns whether a type is part of a query's response. Unions of other contracts may have a member without a known
 * type.
 */
export function isOfQuery(id: string, { contract }: ContractContext): boolean {
  return contract.protocol === "graphql" && isAnswer(id);
}

/**
 * Returns the fields that all members of a union in a response have with the same type, if the type is a top-level one.
 */
export function sharedFields({ members }: UnionShape, context: ContractContext): readonly Field[] {
  const records = members.map(({ shape }) => {
    const inner = shape.kind === "named" ? context.contract.types.get(shape.key)?.shape : undefined;
    return inner?.kind === "record" ? inner.fields : [];
  });
  const [first = [], ...others] = records;
  const signature = ({ name, type, required }: Field): string =>
    `${name}${required ? "" : "?"} ${referenceSignature(type)}`;
  const signatures = others.map((fields) => new Set(fields.map(signature)));
  return first.filter((field) => field.name !== "__typename" && signatures.every((each) => each.has(signature(field))));
}
