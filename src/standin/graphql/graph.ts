import {
  getNamedType,
  getNullableType,
  isAbstractType,
  isEnumType,
  isInterfaceType,
  isListType,
  isObjectType,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLOutputType,
  type GraphQLSchema,
} from "graphql";
import { words } from "../../core/text/words.js";
import { sampleText } from "../samples/sampleText.js";
import { seededFaker } from "../samples/seededFaker.js";
import { put, remove, type Facts, type Shelf, type Shelves } from "../shelves.js";

/** An object of the made-up graph. Its key decides all unknown values below it. */
export interface Made {
  readonly __typename: string;
  readonly key: string;
  readonly known: Facts;
}

/** The id in samples of calls. There is always an entity with it until it is removed. */
export const sampleId = "1";

const stemLength = 5;

/** The number of entities of a type at the start. */
export const poolSize = 8;

/** The first words of mutations that remove something, or that create it with whatever id is given. */
const removes = /^(delete|remove|destroy|erase|drop|discard)$/i;
const creates = /^(create|add|insert|new|register)$/i;

/**
 * The entities of a GraphQL schema, which are its object types with an `id`. A few are made up at the start, and then
 * they are as mutations leave them, wherever the graph contains them.
 */
export class Graph {
  constructor(
    private readonly schema: GraphQLSchema,
    private readonly seed: number,
    private readonly shelves: Shelves,
  ) {}

  isEntity(type: GraphQLNamedType): boolean {
    return (isObjectType(type) || isInterfaceType(type)) && type.getFields()["id"] !== undefined;
  }

  /** The object types that a value can have. */
  private possible(type: GraphQLNamedType): readonly GraphQLObjectType[] {
    if (isObjectType(type)) return [type];
    return isAbstractType(type) ? this.schema.getPossibleTypes(type) : [];
  }

  private shelf(type: GraphQLObjectType): Shelf {
    const shelf = this.shelves.at(type.name);
    if (shelf.isFilled) return shelf;
    shelf.isFilled = true;
    for (let at = 0; at < poolSize; at++) {
      const id = sampleText("id", "id", { constraints: {}, fake: seededFaker(this.seed, "pool", type.name, at) });
      if (!shelf.removed.has(id) && !shelf.things.has(id)) put(shelf, id, {});
    }
    return shelf;
  }

  /** Returns every entity of a type, in order of creation. */
  all(type: GraphQLNamedType): Made[] {
    const possible = this.possible(type);
    const lists = possible.map((each) => [...this.shelf(each).things.keys()].map((id) => this.made(each, id)));
    // For a union or an interface, each type comes early.
    const longest = Math.max(0, ...lists.map((list) => list.length));
    return Array.from({ length: longest }, (_, at) => lists.flatMap((list) => list[at] ?? [])).flat();
  }

  /** Returns the entity with an id; undefined if it was removed. An unknown one is made up and then stored. */
  one(type: GraphQLNamedType, id: string): Made | undefined {
    const possible = this.possible(type);
    const holder = possible.find((each) => this.shelf(each).things.has(id));
    if (holder) return this.made(holder, id);
    if (possible.some((each) => this.shelf(each).removed.has(id))) return undefined;
    const chosen = possible[seededFaker(this.seed, "kind", id).number.int({ min: 0, max: possible.length - 1 })];
    if (!chosen) return undefined;
    put(this.shelf(chosen), id, {});
    return this.made(chosen, id);
  }

  /** The entity with an id, as long as it exists. */
  private there(type: GraphQLNamedType, id: string): Made | undefined {
    const holder = this.possible(type).find((each) => this.shelf(each).things.has(id));
    if (holder) return this.made(holder, id);
    return id === sampleId ? this.one(type, id) : undefined;
  }

  /** Returns an entity of a type, the same one for the same key. */
  some(type: GraphQLNamedType, key: string): Made | undefined {
    const all = this.all(type);
    if (all.length === 0) return undefined;
    return all[seededFaker(this.seed, "some", key).number.int({ min: 0, max: all.length - 1 })];
  }

  private made(type: GraphQLObjectType, id: string): Made {
    return { __typename: type.name, key: `${type.name}:${id}`, known: this.known(type, id) };
  }

  private known(type: GraphQLObjectType, id: string): Facts {
    return { id, ...this.shelf(type).things.get(id) };
  }

  /** Creates an entity with the given values. */
  make(type: GraphQLNamedType, told: Facts, key: string): Made | undefined {
    const possible = this.possible(type);
    const chosen = possible[seededFaker(this.seed, "kind", key).number.int({ min: 0, max: possible.length - 1 })];
    if (!chosen) return undefined;
    const shelf = this.shelf(chosen);
    const own = told["id"];
    const id =
      typeof own === "string" && own !== ""
        ? own
        : sampleText("id", "id", {
            constraints: {},
            fake: seededFaker(this.seed, "made", chosen.name, shelf.made++, key),
          });
    put(shelf, id, this.facts(chosen, told));
    return this.made(chosen, id);
  }

  /** Returns an entity with changed values. */
  change(made: Made, told: Facts): Made {
    const type = this.schema.getType(made.__typename);
    if (!isObjectType(type)) return made;
    const id = String(made.known["id"]);
    const shelf = this.shelf(type);
    const { id: _own, ...facts } = this.facts(type, told);
    put(shelf, id, { ...shelf.things.get(id), ...facts });
    return this.made(type, id);
  }

  remove(made: Made): void {
    const type = this.schema.getType(made.__typename);
    if (isObjectType(type)) remove(this.shelf(type), String(made.known["id"]));
  }

  /** The values of a type's fields in arguments: by name, and "vesselId" for the field `vessel`. */
  private facts(type: GraphQLObjectType, told: Facts): Facts {
    const fields = type.getFields();
    const facts: Record<string, unknown> = {};
    for (const [name, value] of Object.entries(told)) {
      const field = fields[name];
      if (field && isPlain(field.type)) facts[name] = value;
      else if (field && typeof value === "string" && this.isEntity(getNamedType(field.type)))
        facts[name] = this.one(getNamedType(field.type), value);
      const referred = /^(.+)Id$/.exec(name)?.[1];
      const target = referred === undefined ? undefined : fields[referred];
      if (!target || typeof value !== "string" || isListType(getNullableType(target.type))) continue;
      if (this.isEntity(getNamedType(target.type))) facts[referred ?? ""] = this.one(getNamedType(target.type), value);
    }
    return facts;
  }

  /**
   * Runs a mutation: creates, changes or removes the entity in its response, depending on its name.
   *
   * @returns the entity; undefined if the response has none
   */
  mutate(
    name: string,
    type: GraphQLOutputType,
    { args, key }: { readonly args: Facts; readonly key: string },
  ): Made | undefined {
    const target = this.targetOf(getNamedType(type), name);
    if (!target) return undefined;
    const told = flattened(args);
    const [verb = ""] = words(name);
    const id = creates.test(verb) ? undefined : this.idIn(told, target);
    // A query makes up every id that is requested. An entity that is changed must exist.
    const known = id === undefined ? undefined : this.there(target, id);
    if (removes.test(verb)) {
      if (known) this.remove(known);
      return known;
    }
    if (id === undefined) return this.stated(this.make(target, told, key), name);
    return known && this.stated(this.change(known, told), name);
  }

  /** The entity in the state of a mutation's name: `cancelVoyage` makes it CANCELLED. */
  private stated(made: Made | undefined, mutation: string): Made | undefined {
    const type = made && this.schema.getType(made.__typename);
    if (!made || !isObjectType(type)) return made;
    const stems = words(mutation).filter((word) => word.length >= stemLength - 1);
    for (const field of Object.values(type.getFields())) {
      const named = getNullableType(field.type);
      if (!isEnumType(named) || !/^(status|state|phase)$/i.test(field.name)) continue;
      const value = named
        .getValues()
        .find((each) =>
          stems.some((word) => each.name.toLowerCase().startsWith(word.slice(0, stemLength).toLowerCase())),
        );
      if (value) return this.change(made, { [field.name]: value.value as unknown });
    }
    return made;
  }

  /** Returns the entity type in a mutation's response: the response's own type, or that of its first field with one. */
  targetOf(type: GraphQLNamedType, name = ""): GraphQLNamedType | undefined {
    if (this.isEntity(type)) return type;
    if (isObjectType(type)) {
      const inside = Object.values(type.getFields()).map((field) => getNamedType(field.type));
      const found = inside.find((each) => this.isEntity(each));
      if (found) return found;
    }
    // For a scalar response, as of `deleteVoyage(id: ID!): Boolean!`, the name shows the type.
    const [, ...rest] = words(name);
    const named = this.schema.getType(rest.map((word) => word.charAt(0).toUpperCase() + word.slice(1)).join(""));
    return named && this.isEntity(named) ? named : undefined;
  }

  private idIn(told: Facts, target: GraphQLNamedType): string | undefined {
    const own = new Set(
      [target.name, ...this.possible(target).map(({ name }) => name)].map((name) => name.toLowerCase()),
    );
    for (const [name, value] of Object.entries(told)) {
      if (typeof value !== "string") continue;
      const lower = name.toLowerCase();
      if (lower === "id" || (lower.endsWith("id") && own.has(lower.slice(0, -2))) || own.has(lower)) return value;
    }
    return undefined;
  }
}

/** Arguments and the fields of input objects among them, as one. */
function flattened(args: Facts): Facts {
  const told: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(args)) {
    if (typeof value === "object" && value !== null && !Array.isArray(value)) Object.assign(told, value);
    else told[name] = value;
  }
  return told;
}

function isPlain(type: GraphQLOutputType): boolean {
  const named = getNamedType(type);
  return !("getFields" in named) && !isAbstractType(named);
}
