import { Kind, parse } from "graphql";
import type { Randomness } from "../test/proof/random/randomness.js";
import type { Edit } from "./restEdits.js";

/** A syntax tree that edits may change. The members of a node depend on its kind. */
interface Node {
  kind: Kind;
  name: { kind: Kind; value: string };
  type: Node;
  fields?: Node[] | undefined;
  arguments?: Node[] | undefined;
  values?: Node[];
  types?: Node[];
  interfaces?: Node[];
  directives?: Node[] | undefined;
  operationTypes?: { operation: string }[];
  defaultValue?: { kind: Kind; value: string };
  description?: { kind: Kind; value: string; block?: boolean };
}
export interface SchemaTree {
  kind: Kind;
  definitions: Node[];
}
type SchemaEdit = Edit<SchemaTree>;

const wrapped = (kind: Kind, type: Node): Node => ({ kind, type, name: named("") });
const referring = (kind: Kind, name: string): Node => ({
  ...wrapped(kind, definition("scalar S")),
  name: named(name),
});
const named = (name: string) => ({ kind: Kind.NAME, value: name });
const definition = (text: string): Node => schemaTree(text).definitions[0]!;
const field = (text: string): Node => definition(`type T { ${text} }`).fields![0]!;
const argument = (text: string): Node => definition(`input T { ${text} }`).fields![0]!;

const ofKind = (tree: SchemaTree, ...kinds: Kind[]): Node[] =>
  tree.definitions.filter(({ kind }) => kinds.includes(kind));
const outputs = (tree: SchemaTree): Node[] => ofKind(tree, Kind.OBJECT_TYPE_DEFINITION, Kind.INTERFACE_TYPE_DEFINITION);
const objects = (tree: SchemaTree): Node[] => ofKind(tree, Kind.OBJECT_TYPE_DEFINITION);
const interfaces = (tree: SchemaTree): Node[] => ofKind(tree, Kind.INTERFACE_TYPE_DEFINITION);
const inputs = (tree: SchemaTree): Node[] => ofKind(tree, Kind.INPUT_OBJECT_TYPE_DEFINITION);
const enums = (tree: SchemaTree): Node[] => ofKind(tree, Kind.ENUM_TYPE_DEFINITION);
const unions = (tree: SchemaTree): Node[] => ofKind(tree, Kind.UNION_TYPE_DEFINITION);

const oneOf = <T>(items: readonly T[], random: Randomness, use: (item: T) => boolean | undefined): boolean => {
  const open = [...items];
  while (open.length > 0) {
    const [item] = open.splice(random.below(open.length), 1);
    if (item !== undefined && use(item) !== false) return true;
  }
  return false;
};

/** An edit of a field of an output type, with the fields that an interface ties to it. */
function fieldEdit(kind: string, change: (field: Node, tree: SchemaTree) => boolean | undefined): SchemaEdit {
  return {
    kind,
    apply: (tree, random) =>
      oneOf(
        outputs(tree).flatMap((owner) => (owner.fields ?? []).map((each) => ({ owner, each }))),
        random,
        ({ owner, each }) => {
          const tied = tiedFields(tree, owner, each.name.value);
          const results = tied.map((one) => change(one, tree));
          return results.every((result) => result !== false);
        },
      ),
  };
}

function tiedFields(tree: SchemaTree, owner: Node, name: string): Node[] {
  const related = new Set<string>([owner.name.value]);
  for (let size = 0; size !== related.size;) {
    size = related.size;
    for (const each of outputs(tree)) {
      const holds = (each.fields ?? []).some((one) => one.name.value === name);
      const through = (each.interfaces ?? []).filter((one) =>
        interfaces(tree).some(
          (other) => other.name.value === one.name.value && (other.fields ?? []).some((f) => f.name.value === name),
        ),
      );
      if (!holds) continue;
      if (related.has(each.name.value)) for (const one of through) related.add(one.name.value);
      if (through.some((one) => related.has(one.name.value))) related.add(each.name.value);
    }
  }
  return outputs(tree)
    .filter((each) => related.has(each.name.value))
    .flatMap((each) => (each.fields ?? []).filter((one) => one.name.value === name));
}

const nullable = (type: Node): Node => (type.kind === Kind.NON_NULL_TYPE ? type.type : type);
const nonNull = (type: Node): Node => (type.kind === Kind.NON_NULL_TYPE ? type : wrapped(Kind.NON_NULL_TYPE, type));
/** Replaces the innermost named type, whatever is around it. */
const swap = (type: Node, from: string, to: string): boolean => {
  if (type.kind !== Kind.NAMED_TYPE) return swap(type.type, from, to);
  if (type.name.value !== from) return false;
  type.name = named(to);
  return true;
};

const removeFrom = <T>(list: T[] | undefined, item: T): boolean => {
  const at = list?.indexOf(item) ?? -1;
  if (at < 0) return false;
  list?.splice(at, 1);
  return true;
};

const ofFields: SchemaEdit[] = [
  {
    kind: "a field removed",
    apply: (tree, random) =>
      oneOf(outputs(tree), random, (owner) => {
        if ((owner.fields?.length ?? 0) < 2) return false;
        const each = random.pick(owner.fields ?? []);
        for (const one of tiedFields(tree, owner, each.name.value))
          for (const other of outputs(tree)) removeFrom(other.fields, one);
        return outputs(tree).every(({ fields }) => (fields?.length ?? 0) > 0);
      }),
  },
  {
    kind: "a field added",
    apply: (tree, random) =>
      oneOf(objects(tree), random, (owner) => {
        owner.fields?.push(field("brandNew: String"));
        return true;
      }),
  },
  {
    kind: "a field added that is never null",
    apply: (tree, random) =>
      oneOf(objects(tree), random, (owner) => {
        owner.fields?.push(field("brandNew: Int!"));
        return true;
      }),
  },
  fieldEdit("a field renamed", (each) => {
    each.name = named(`${each.name.value}Anew`);
    return true;
  }),
  fieldEdit("never null now", (each) => {
    if (each.type.kind === Kind.NON_NULL_TYPE) return false;
    each.type = nonNull(each.type);
    return true;
  }),
  fieldEdit("null gained", (each) => {
    if (each.type.kind !== Kind.NON_NULL_TYPE) return false;
    each.type = nullable(each.type);
    return true;
  }),
  fieldEdit("null gained by the items of a list", (each) => {
    const list = nullable(each.type);
    if (list.kind !== Kind.LIST_TYPE || list.type.kind !== Kind.NON_NULL_TYPE) return false;
    list.type = list.type.type;
    return true;
  }),
  fieldEdit("null gained two lists deep", (each) => {
    const list = nullable(each.type);
    if (list.kind !== Kind.LIST_TYPE) return false;
    const inner = nullable(list.type);
    if (inner.kind !== Kind.LIST_TYPE || inner.type.kind !== Kind.NON_NULL_TYPE) return false;
    inner.type = inner.type.type;
    return true;
  }),
  fieldEdit("null lost by the items of a list", (each) => {
    const list = nullable(each.type);
    if (list.kind !== Kind.LIST_TYPE || list.type.kind === Kind.NON_NULL_TYPE) return false;
    list.type = nonNull(list.type);
    return true;
  }),
  fieldEdit("Int became Float", (each) => swap(each.type, "Int", "Float")),
  fieldEdit("Float became Int", (each) => swap(each.type, "Float", "Int")),
  fieldEdit("ID became String", (each) => swap(each.type, "ID", "String")),
  fieldEdit("String became Int", (each) => swap(each.type, "String", "Int")),
  fieldEdit("one became a list", (each) => {
    if (nullable(each.type).kind === Kind.LIST_TYPE) return false;
    each.type = wrapped(Kind.LIST_TYPE, each.type);
    return true;
  }),
  fieldEdit("a choice became text", (each, tree) =>
    enums(tree).some(({ name }) => swap(each.type, name.value, "String")),
  ),
  fieldEdit("a scalar swapped", (each) => swap(each.type, "Moment", "Colour") || swap(each.type, "Instant", "Day")),
  fieldEdit("a field deprecated", (each) => {
    each.directives = field('f: Int @deprecated(reason: "Old.")').directives;
    return true;
  }),
];

/** An edit of a field's argument, in all types that an interface ties together. */
function argumentEdit(
  kind: string,
  change: (argument: Node, list: Node[], tree: SchemaTree) => boolean | undefined,
): SchemaEdit {
  return {
    kind,
    apply: (tree, random) =>
      oneOf(
        outputs(tree).flatMap((owner) =>
          (owner.fields ?? []).flatMap((each) =>
            (each.arguments ?? []).map((one) => ({ one, list: each.arguments ?? [] })),
          ),
        ),
        random,
        ({ one, list }) => change(one, list, tree),
      ),
  };
}

const ofArguments: SchemaEdit[] = [
  argumentEdit("an argument removed", (one, list) => removeFrom(list, one)),
  argumentEdit("an argument renamed", (one) => {
    one.name = named(`${one.name.value}Anew`);
    return true;
  }),
  argumentEdit("an argument added", (_, list) => {
    list.push(argument("brandNew: Int"));
    return true;
  }),
  argumentEdit("a needed argument added", (_, list) => {
    list.push(argument("brandNew: Int!"));
    return true;
  }),
  argumentEdit("an argument needed now", (one) => {
    if (one.type.kind === Kind.NON_NULL_TYPE || one.defaultValue) return false;
    one.type = nonNull(one.type);
    return true;
  }),
  argumentEdit("an argument may be left out now", (one) => {
    if (one.type.kind !== Kind.NON_NULL_TYPE) return false;
    one.type = nullable(one.type);
    return true;
  }),
  argumentEdit("a default changed", (one) => {
    if (one.defaultValue?.kind !== Kind.INT) return false;
    one.defaultValue = { kind: Kind.INT, value: "77" };
    return true;
  }),
  argumentEdit("a default dropped", (one) => {
    if (!one.defaultValue) return false;
    Reflect.deleteProperty(one, "defaultValue");
    return true;
  }),
  argumentEdit("an argument takes Float instead of Int", (one) => swap(one.type, "Int", "Float")),
  argumentEdit("an argument takes Int instead of Float", (one) => swap(one.type, "Float", "Int")),
  argumentEdit("an argument takes String instead of ID", (one) => swap(one.type, "ID", "String")),
  argumentEdit("an argument takes ID instead of String", (one) => swap(one.type, "String", "ID")),
  argumentEdit("an argument takes Int instead of String", (one) => swap(one.type, "String", "Int")),
  argumentEdit("items of an argument never null now", (one) => {
    const list = nullable(one.type);
    if (list.kind !== Kind.LIST_TYPE || list.type.kind === Kind.NON_NULL_TYPE) return false;
    list.type = nonNull(list.type);
    return true;
  }),
  argumentEdit("items of an argument may be null now", (one) => {
    const list = nullable(one.type);
    if (list.kind !== Kind.LIST_TYPE || list.type.kind !== Kind.NON_NULL_TYPE) return false;
    list.type = list.type.type;
    return true;
  }),
  argumentEdit("an argument takes a list", (one) => {
    if (nullable(one.type).kind === Kind.LIST_TYPE || one.defaultValue) return false;
    one.type = wrapped(Kind.LIST_TYPE, one.type);
    return true;
  }),
];

/** An edit of a field of an input. */
function inputEdit(
  kind: string,
  change: (field: Node, owner: Node, tree: SchemaTree) => boolean | undefined,
): SchemaEdit {
  return {
    kind,
    apply: (tree, random) =>
      oneOf(
        inputs(tree).flatMap((owner) => (owner.fields ?? []).map((each) => ({ owner, each }))),
        random,
        ({ owner, each }) => change(each, owner, tree),
      ),
  };
}

const isOneOf = (owner: Node): boolean => (owner.directives ?? []).some(({ name }) => name.value === "oneOf");

const ofInputs: SchemaEdit[] = [
  inputEdit(
    "an input field removed",
    (each, owner) => (owner.fields?.length ?? 0) > 1 && removeFrom(owner.fields, each),
  ),
  inputEdit("an input field renamed", (each) => {
    each.name = named(`${each.name.value}Anew`);
    return true;
  }),
  inputEdit("an input field added", (_, owner) => {
    owner.fields?.push(argument("brandNew: Int"));
    return true;
  }),
  inputEdit("a needed input field added", (_, owner) => {
    if (isOneOf(owner)) return false;
    owner.fields?.push(argument("brandNew: Int!"));
    return true;
  }),
  inputEdit("an input field needed now", (each, owner) => {
    if (isOneOf(owner) || each.type.kind === Kind.NON_NULL_TYPE || each.defaultValue) return false;
    each.type = nonNull(each.type);
    return true;
  }),
  inputEdit("an input field may be left out now", (each) => {
    if (each.type.kind !== Kind.NON_NULL_TYPE) return false;
    each.type = nullable(each.type);
    return true;
  }),
  inputEdit("a default of an input field dropped", (each) => {
    if (!each.defaultValue) return false;
    Reflect.deleteProperty(each, "defaultValue");
    return true;
  }),
  inputEdit("an input field takes Int instead of Float", (each) => swap(each.type, "Float", "Int")),
  inputEdit("an input field takes Int instead of String", (each) => swap(each.type, "String", "Int")),
  inputEdit("an input field takes String instead of ID", (each) => swap(each.type, "ID", "String")),
  inputEdit("an input field takes a list", (each) => {
    if (nullable(each.type).kind === Kind.LIST_TYPE || each.defaultValue) return false;
    each.type = wrapped(Kind.LIST_TYPE, each.type);
    return true;
  }),
  inputEdit("an input field deprecated", (each) => {
    if (each.type.kind === Kind.NON_NULL_TYPE) return false;
    each.directives = argument('f: Int @deprecated(reason: "Old.")').directives;
    return true;
  }),
  inputEdit("exactly one field of an input", (_, owner) => {
    if (
      isOneOf(owner) ||
      owner.fields?.some(({ type, defaultValue }) => type.kind === Kind.NON_NULL_TYPE || defaultValue) === true
    )
      return false;
    owner.directives = definition("input T @oneOf { a: Int }").directives;
    return true;
  }),
  inputEdit("several fields of an input", (_, owner) => {
    if (!isOneOf(owner)) return false;
    owner.directives = [];
    return true;
  }),
];

const ofTypes: SchemaEdit[] = [
  {
    kind: "a choice gained",
    apply: (tree, random) =>
      oneOf(enums(tree), random, (each) => {
        each.values?.push(referring(Kind.ENUM_VALUE_DEFINITION, "BRAND_NEW"));
        return true;
      }),
  },
  {
    kind: "a choice lost",
    apply: (tree, random) =>
      oneOf(enums(tree), random, (each) => {
        if ((each.values?.length ?? 0) < 2) return false;
        const value = random.pick(each.values ?? []);
        // Removing the default would make the schema invalid.
        if (JSON.stringify(tree).includes(`"defaultValue":{"kind":"EnumValue","value":"${value.name.value}"`))
          return false;
        return removeFrom(each.values, value);
      }),
  },
  {
    kind: "a choice deprecated",
    apply: (tree, random) =>
      oneOf(enums(tree), random, (each) => {
        const value = random.pick(each.values ?? []);
        value.directives = field('f: Int @deprecated(reason: "Old.")').directives;
        return true;
      }),
  },
  {
    kind: "a member added to a union",
    apply: (tree, random) =>
      oneOf(unions(tree), random, (each) => {
        tree.definitions.push(definition("type BrandNew { id: ID! fresh: Int }"));
        each.types?.push(referring(Kind.NAMED_TYPE, "BrandNew"));
        return true;
      }),
  },
  {
    kind: "a member added to a union, with what the others have",
    apply: (tree, random) =>
      oneOf(unions(tree), random, (each) => {
        const members = objects(tree).filter(
          ({ name }) => each.types?.some((one) => one.name.value === name.value) === true,
        );
        tree.definitions.push({ ...structuredClone(random.pick(members)), name: named("BrandNew") });
        each.types?.push(referring(Kind.NAMED_TYPE, "BrandNew"));
        return true;
      }),
  },
  {
    kind: "a type of an interface that lacks what the others have beside",
    apply: (tree, random) =>
      oneOf(interfaces(tree), random, (each) => {
        const fresh = definition(`type BrandNew implements ${each.name.value} { fresh: Int }`);
        if ((each.interfaces?.length ?? 0) > 0) return false;
        fresh.fields?.push(...(structuredClone(each.fields) ?? []));
        tree.definitions.push(fresh);
        return true;
      }),
  },
  ...[true, false].map((isWhole): SchemaEdit => ({
    kind: `a field that has another type with ${isWhole ? "all" : "most of"} its fields`,
    apply: (tree, random) =>
      oneOf(objects(tree), random, (each) => {
        const roots = ["Query", "Mutation", "Subscription"];
        if (roots.includes(each.name.value) || (each.fields?.length ?? 0) < 2) return false;
        const uses = objects(tree)
          .flatMap((owner) => (owner.interfaces?.length ? [] : (owner.fields ?? [])))
          .filter(({ type }) => JSON.stringify(type).includes(`"value":"${each.name.value}"`));
        if (uses.length === 0) return false;
        const twin = { ...structuredClone(each), name: named("Twin") };
        if (!isWhole && twin.interfaces?.length) return false;
        if (!isWhole) twin.fields?.splice(random.below(twin.fields.length), 1);
        tree.definitions.push(twin);
        return swap(random.pick(uses).type, each.name.value, "Twin");
      }),
  })),
  {
    kind: "a field that has another enum with more values",
    apply: (tree, random) =>
      oneOf(enums(tree), random, (each) => {
        const uses = objects(tree)
          .flatMap((owner) => (owner.interfaces?.length ? [] : (owner.fields ?? [])))
          .filter(({ type }) => JSON.stringify(type).includes(`"value":"${each.name.value}"`));
        if (uses.length === 0) return false;
        const twin = { ...structuredClone(each), name: named("Twin") };
        twin.values?.push(referring(Kind.ENUM_VALUE_DEFINITION, "BRAND_NEW"));
        tree.definitions.push(twin);
        return swap(random.pick(uses).type, each.name.value, "Twin");
      }),
  },
  {
    kind: "a member taken from a union",
    apply: (tree, random) =>
      oneOf(unions(tree), random, (each) => {
        each.types?.splice(random.below(each.types.length), 1);
        return true;
      }),
  },
  {
    kind: "a new type of an interface",
    apply: (tree, random) =>
      oneOf(interfaces(tree), random, (each) => {
        const all = [each.name.value, ...(each.interfaces ?? []).map(({ name }) => name.value)];
        const fresh = definition(`type BrandNew implements ${all.join(" & ")} { fresh: Int }`);
        fresh.fields?.push(...(structuredClone(each.fields) ?? []));
        tree.definitions.push(fresh);
        return true;
      }),
  },
  {
    kind: "an interface dropped",
    apply: (tree, random) =>
      oneOf(
        objects(tree).flatMap((owner) => (owner.interfaces ?? []).map((one) => ({ owner, one }))),
        random,
        ({ owner, one }) => {
          const isNeeded = (owner.interfaces ?? []).some((other) =>
            interfaces(tree).some(
              ({ name, interfaces: above }) =>
                name.value === other.name.value && above?.some((each) => each.name.value === one.name.value) === true,
            ),
          );
          return !isNeeded && removeFrom(owner.interfaces, one);
        },
      ),
  },
  {
    kind: "a field moved from an interface to its types",
    apply: (tree, random) =>
      oneOf(interfaces(tree), random, (each) => {
        if ((each.fields?.length ?? 0) < 2) return false;
        const gone = random.pick(each.fields ?? []);
        const isElsewhere = interfaces(tree).some(
          (other) => other !== each && other.fields?.some(({ name }) => name.value === gone.name.value) === true,
        );
        return !isElsewhere && removeFrom(each.fields, gone);
      }),
  },
  {
    kind: "an input renamed",
    apply: (tree, random) => oneOf(inputs(tree), random, (each) => renamed(tree, each.name.value)),
  },
  {
    kind: "an enum renamed",
    apply: (tree, random) => oneOf(enums(tree), random, (each) => renamed(tree, each.name.value)),
  },
  {
    kind: "an object type renamed",
    apply: (tree, random) =>
      oneOf(
        objects(tree),
        random,
        (each) => !["Query", "Mutation", "Subscription"].includes(each.name.value) && renamed(tree, each.name.value),
      ),
  },
  {
    kind: "an interface renamed",
    apply: (tree, random) => oneOf(interfaces(tree), random, (each) => renamed(tree, each.name.value)),
  },
  {
    kind: "a directive dropped",
    apply: (tree, random) =>
      oneOf(
        tree.definitions.filter(({ kind }) => kind === Kind.DIRECTIVE_DEFINITION),
        random,
        (each) => removeFrom(tree.definitions, each),
      ),
  },
  {
    kind: "an argument of a directive dropped",
    apply: (tree, random) =>
      oneOf(
        tree.definitions.filter((each) => each.kind === Kind.DIRECTIVE_DEFINITION && (each.arguments?.length ?? 0) > 0),
        random,
        (each) => {
          const list = each.arguments ?? [];
          return removeFrom(list, random.pick(list));
        },
      ),
  },
  {
    kind: "no subscriptions any more",
    apply: (tree) => {
      const root = objects(tree).find(({ name }) => name.value === "Subscription");
      const schema = tree.definitions.find(({ kind }) => kind === Kind.SCHEMA_DEFINITION) as
        { operationTypes: { operation: string }[] } | undefined;
      if (schema) schema.operationTypes = schema.operationTypes.filter(({ operation }) => operation !== "subscription");
      return root !== undefined && removeFrom(tree.definitions, root);
    },
  },
];

function renamed(tree: SchemaTree, name: string): boolean {
  const visit = (node: unknown): void => {
    if (typeof node !== "object" || node === null) return;
    const { kind, name: own } = node as { kind?: Kind; name?: { value: string } };
    if ((kind === Kind.NAMED_TYPE || kind?.endsWith("TypeDefinition") === true) && own?.value === name)
      own.value = `${name}Anew`;
    for (const child of Object.values(node)) visit(child);
  };
  visit(tree);
  return true;
}

const meaningless = (kind: string, apply: SchemaEdit["apply"]): SchemaEdit => ({ kind, isMeaningless: true, apply });

const ofSpelling: SchemaEdit[] = [
  meaningless("types in another order", (tree) => {
    tree.definitions.reverse();
    return true;
  }),
  meaningless("fields in another order", (tree, random) =>
    oneOf(outputs(tree), random, (each) => {
      each.fields?.reverse();
      return true;
    }),
  ),
  meaningless("arguments in another order", (tree, random) =>
    oneOf(
      outputs(tree).flatMap(({ fields }) => (fields ?? []).filter((each) => (each.arguments?.length ?? 0) > 1)),
      random,
      (each) => {
        each.arguments?.reverse();
        return true;
      },
    ),
  ),
  meaningless("choices in another order", (tree, random) =>
    oneOf(enums(tree), random, (each) => {
      each.values?.reverse();
      return true;
    }),
  ),
  meaningless("members in another order", (tree, random) =>
    oneOf(unions(tree), random, (each) => {
      each.types?.reverse();
      return true;
    }),
  ),
  meaningless("interfaces in another order", (tree, random) =>
    oneOf(objects(tree), random, (each) => {
      if ((each.interfaces?.length ?? 0) < 2) return false;
      each.interfaces?.reverse();
      return true;
    }),
  ),
  meaningless("words of a field", (tree, random) =>
    oneOf(outputs(tree), random, (each) => {
      const one = random.pick(each.fields ?? []);
      one.description = { kind: Kind.STRING, value: "Other words." };
      return true;
    }),
  ),
  meaningless("words of a type", (tree, random) =>
    oneOf(objects(tree), random, (each) => {
      each.description = { kind: Kind.STRING, value: "Other words.", block: true };
      return true;
    }),
  ),
  meaningless("a field moved to an extension", (tree, random) =>
    oneOf(objects(tree), random, (each) => {
      if ((each.fields?.length ?? 0) < 2 || (each.interfaces?.length ?? 0) > 0) return false;
      const moved = each.fields?.pop();
      const extension = definition(`extend type ${each.name.value} { x: Int }`);
      extension.fields = moved ? [moved] : [];
      tree.definitions.push(extension);
      return true;
    }),
  ),
  meaningless("a type that nothing uses", (tree) => {
    tree.definitions.push(definition("type Unused { a: Int }"));
    return true;
  }),
  meaningless("an input that nothing uses", (tree) => {
    tree.definitions.push(definition("input UnusedInput { a: Int }"));
    return true;
  }),
];

/** Every kind of edit of a GraphQL schema. */
export const graphqlEdits: readonly SchemaEdit[] = [
  ...ofFields,
  ...ofArguments,
  ...ofInputs,
  ...ofTypes,
  ...ofSpelling,
];

export function schemaTree(text: string): SchemaTree {
  return JSON.parse(JSON.stringify(parse(text, { noLocation: true }))) as SchemaTree;
}
