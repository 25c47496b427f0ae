import { isInside, memberOf } from "../use/coordinate.js";
import type { GraphQLField, GraphQLNamedType, GraphQLSchema } from "graphql";
import {
  getNamedType,
  isEnumType,
  isInputObjectType,
  isInterfaceType,
  isObjectType,
  isSpecifiedScalarType,
  isUnionType,
} from "graphql";
import { rootFields } from "../graphql/documents/draftDocument.js";
import type { Place } from "../problem/place.js";
import { sortedBy } from "../text/sortedBy.js";
import { adviseGraphql } from "./advice.js";
import { useOf, type Outline, type OutlineDetail, type OutlineEntry, type Sample, type UsesOf } from "./outline.js";
import { firstSentence } from "./shapeCount.js";

/** The source of a schema's outline. */
export interface GraphqlOutlineSource {
  readonly contract: string;
  readonly schema: GraphQLSchema;
  /** Uses by schema coordinate: "Query.voyages", "Voyage.eta", "VoyageStatus.LATE". */
  readonly usesOf: UsesOf;
  /** Every used coordinate. */
  readonly used: ReadonlySet<string>;
  /** Code that sends the project's queries of a root field ("Query.voyages"). */
  readonly samplesOf?: (coordinate: string) => readonly Sample[];
}

/** Outlines a schema: its root fields and its types. */
export function outlineGraphql(source: GraphqlOutlineSource): Outline {
  const { contract, schema, usesOf } = source;
  const groups = new Map<string, OutlineEntry[]>();
  for (const { type, field } of rootFields(schema)) {
    const definition = type.getFields()[field];
    if (!definition) continue;
    const places = usesOf(memberOf(type.name, field));
    const entry: OutlineEntry = {
      label: `${type.name}.${field}`,
      name: signature(definition),
      summary: firstSentence(definition.description ?? undefined),
      deprecated: definition.deprecationReason ?? undefined,
      use: useOf(places),
      places: places ?? [],
    };
    groups.set(type.name, [...(groups.get(type.name) ?? []), entry]);
  }
  return {
    contract,
    protocol: "graphql",
    title: firstSentence(schema.description ?? undefined) ?? "",
    version: "",
    groups: [...groups].map(([name, entries]) => ({ name, summary: undefined, entries })),
    types: sortedBy(ownTypes(schema), ({ name }) => name).map((type) => ({
      name: type.name,
      what: kindOf(type),
      summary: firstSentence(type.description ?? undefined),
      use: isUsed(type.name, source) ? "used" : "not used",
    })),
    advice: adviseGraphql(schema),
  };
}

/**
 * Returns the details of a root field, a field of a type, or a type.
 *
 * @param name "Query.voyages", "voyages", "Voyage.eta" or "Voyage"
 * @returns undefined if there is none with that name
 */
export function detailOfGraphql(source: GraphqlOutlineSource, name: string): OutlineDetail | undefined {
  const { schema } = source;
  const [owner = "", member] = name.split(".");
  const root = rootFields(schema).find(({ field, type }) => field === name || `${type.name}.${field}` === name);
  const holder = root?.type ?? schema.getType(owner);
  const field =
    holder && (isObjectType(holder) || isInterfaceType(holder))
      ? holder.getFields()[root?.field ?? member ?? ""]
      : undefined;
  if (holder && field) return detailOfField(source, holder.name, field);
  const type = schema.getType(name);
  if (!type) return undefined;
  const places = [...source.used]
    .filter((coordinate) => coordinate === name || isInside(coordinate, name))
    .flatMap((coordinate) => source.usesOf(coordinate) ?? []);
  return {
    title: `${type.name}, ${kindOf(type)}`,
    description: type.description ?? undefined,
    samples: [],
    lines: typeLines(type, source),
    use: useOf(places),
    places: distinctPlaces(places),
    reachedBy: reachedBy(schema, type),
    reaches: reached(source, type),
  };
}

function detailOfField(
  source: GraphqlOutlineSource,
  owner: string,
  field: GraphQLField<unknown, unknown>,
): OutlineDetail {
  const places = source.usesOf(`${owner}.${field.name}`) ?? [];
  const answered = getNamedType(field.type);
  const sent = field.args.flatMap((argument) => {
    const type = getNamedType(argument.type);
    return isSpecifiedScalarType(type) ? [] : [type];
  });
  const titles = new Set<string>();
  const all = [...sent, answered].flatMap((type) => [
    { title: `${type.name}, ${kindOf(type)}`, lines: typeLines(type, source) },
    ...reached(source, type),
  ]);
  return {
    title: `${owner}.${field.name}`,
    description: field.description ?? undefined,
    samples: source.samplesOf?.(`${owner}.${field.name}`) ?? [],
    lines: [
      ...field.args.map(
        (argument) =>
          `argument ${argument.name}: ${String(argument.type)}${argument.defaultValue === undefined ? "" : ` = ${JSON.stringify(argument.defaultValue)}`}`,
      ),
      `returns ${String(field.type)}`,
    ],
    use: useOf(places),
    places: distinctPlaces(places),
    reachedBy: [],
    reaches: all.filter(({ title, lines }) => {
      if (titles.has(title) || lines.length === 0) return false;
      titles.add(title);
      return true;
    }),
  };
}

/** Returns every name that `detailOfGraphql` accepts. */
export function namesInGraphql({ schema }: GraphqlOutlineSource): string[] {
  return [
    ...rootFields(schema).flatMap(({ type, field }) => [field, `${type.name}.${field}`]),
    ...ownTypes(schema).map(({ name }) => name),
  ];
}

function ownTypes(schema: GraphQLSchema): GraphQLNamedType[] {
  const roots = new Set([schema.getQueryType(), schema.getMutationType(), schema.getSubscriptionType()]);
  return Object.values(schema.getTypeMap()).filter(
    (type) => !type.name.startsWith("__") && !isSpecifiedScalarType(type) && !roots.has(type as never),
  );
}

function isUsed(name: string, { used }: GraphqlOutlineSource): boolean {
  if (used.has(name)) return true;
  for (const coordinate of used) if (isInside(coordinate, name)) return true;
  return false;
}

function kindOf(type: GraphQLNamedType): string {
  const many = (count: number, one: string): string => `${String(count)} ${one}${count === 1 ? "" : "s"}`;
  if (isEnumType(type)) return `an enum of ${many(type.getValues().length, "value")}`;
  if (isUnionType(type)) return `a union of ${many(type.getTypes().length, "type")}`;
  if (isInputObjectType(type)) return `an input of ${many(Object.keys(type.getFields()).length, "field")}`;
  if (isInterfaceType(type)) return `an interface of ${many(Object.keys(type.getFields()).length, "field")}`;
  if (isObjectType(type)) return `a type of ${many(Object.keys(type.getFields()).length, "field")}`;
  return "a scalar";
}

function signature({ name, args, type }: GraphQLField<unknown, unknown>): string {
  const taken = args.map((argument) => `${argument.name}: ${String(argument.type)}`).join(", ");
  return `${name}${taken === "" ? "" : `(${taken})`}: ${String(type)}`;
}

/** The parts of a type, one line each, with a mark on those in use. */
function typeLines(type: GraphQLNamedType, { used }: GraphqlOutlineSource): string[] {
  const marked = (member: string, text: string): string =>
    `${used.has(memberOf(type.name, member)) ? "* " : "  "}${text}`;
  if (isEnumType(type)) return type.getValues().map(({ name }) => marked(name, name));
  if (isUnionType(type)) return type.getTypes().map(({ name }) => `  or ${name}`);
  if (isInputObjectType(type))
    return Object.values(type.getFields()).map((field) => marked(field.name, `${field.name}: ${String(field.type)}`));
  if (isObjectType(type) || isInterfaceType(type))
    return Object.values(type.getFields()).map((field) => marked(field.name, signature(field)));
  return [];
}

function children(type: GraphQLNamedType, schema: GraphQLSchema): GraphQLNamedType[] {
  if (isUnionType(type)) return [...type.getTypes()];
  if (isInputObjectType(type)) return Object.values(type.getFields()).map((field) => getNamedType(field.type));
  if (!isObjectType(type) && !isInterfaceType(type)) return [];
  return [
    ...(isInterfaceType(type) ? schema.getPossibleTypes(type) : []),
    ...Object.values(type.getFields()).flatMap((field) => [
      getNamedType(field.type),
      ...field.args.map((argument) => getNamedType(argument.type)),
    ]),
  ];
}

function reached(source: GraphqlOutlineSource, from: GraphQLNamedType): { title: string; lines: string[] }[] {
  const seen = new Set<GraphQLNamedType>([from]);
  const open = [from];
  // The list grows during the loop.
  for (const type of open) {
    for (const child of children(type, source.schema)) {
      if (seen.has(child) || isSpecifiedScalarType(child)) continue;
      seen.add(child);
      open.push(child);
    }
  }
  return open
    .slice(1)
    .map((type) => ({ title: `${type.name}, ${kindOf(type)}`, lines: typeLines(type, source) }))
    .filter(({ lines }) => lines.length > 0);
}

/** Fields that return the type or have it in an argument. */
function reachedBy(schema: GraphQLSchema, wanted: GraphQLNamedType): string[] {
  return Object.values(schema.getTypeMap()).flatMap((type) =>
    (isObjectType(type) || isInterfaceType(type)) && !type.name.startsWith("__")
      ? Object.values(type.getFields())
          .filter(
            (field) =>
              getNamedType(field.type) === wanted || field.args.some((each) => getNamedType(each.type) === wanted),
          )
          .map(({ name }) => `${type.name}.${name}`)
      : [],
  );
}

function distinctPlaces(places: readonly Place[]): Place[] {
  const known = new Map(places.map((place) => [JSON.stringify(place), place]));
  return [...known.values()];
}
