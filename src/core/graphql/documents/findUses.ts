import { argumentOf, bridgeOf, directiveOf, memberOf, printCoordinate, type Coordinate } from "../../use/coordinate.js";
import {
  getNamedType,
  isAbstractType,
  isCompositeType,
  isEnumType,
  isInputObjectType,
  isInterfaceType,
  isScalarType,
  isUnionType,
  Kind,
  TypeInfo,
  typeFromAST,
  visit,
  visitWithTypeInfo,
  type ArgumentNode,
  type ASTNode,
  type DirectiveNode,
  type FieldNode,
  type FragmentDefinitionNode,
  type GraphQLAbstractType,
  type GraphQLArgument,
  type GraphQLCompositeType,
  type GraphQLNamedType,
  type GraphQLObjectType,
  type GraphQLSchema,
  type ObjectFieldNode,
  type ObjectValueNode,
  type OperationDefinitionNode,
  type SelectionNode,
  type SelectionSetNode,
  type ValueNode,
  type VariableDefinitionNode,
} from "graphql";
import { placeOfNode } from "../graphqlPlace.js";
import { memberNeeds } from "./memberNeeds.js";
import type { QueryUse, UseKind } from "./queryModel.js";

/**
 * Returns every place where definitions use a part of the schema, in document order.
 *
 * @param nodes all definitions that are sent together
 */
export function findUses(
  schema: GraphQLSchema,
  nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[],
): QueryUse[] {
  const maybeNull = nullableVariables(nodes);
  const fragments = new Map(
    nodes.flatMap((node) => (node.kind === Kind.FRAGMENT_DEFINITION ? [[node.name.value, node] as const] : [])),
  );
  return nodes.flatMap((node) => new UseFinder(schema, node, { maybeNull, fragments }).find());
}

/** Returns the variables that may be null or left out. Any of the operations may send a fragment. */
function nullableVariables(nodes: readonly (OperationDefinitionNode | FragmentDefinitionNode)[]): Set<string> {
  return new Set(
    nodes.flatMap((node) =>
      node.kind === Kind.OPERATION_DEFINITION
        ? (node.variableDefinitions ?? [])
            .filter(({ type, defaultValue }) => type.kind !== Kind.NON_NULL_TYPE && !defaultValue)
            .map(({ variable }) => variable.name.value)
        : [],
    ),
  );
}

/** The common facts of definitions that are sent together. */
interface Sent {
  readonly maybeNull: ReadonlySet<string>;
  readonly fragments: ReadonlyMap<string, FragmentDefinitionNode>;
}

/** Finds the uses of one definition. A walk over the document calls it for each node. */
class UseFinder {
  readonly uses: QueryUse[] = [];
  private readonly info: TypeInfo;
  private readonly owner: string;

  constructor(
    private readonly schema: GraphQLSchema,
    private readonly definition: OperationDefinitionNode | FragmentDefinitionNode,
    private readonly sent: Sent,
  ) {
    this.info = new TypeInfo(schema);
    this.owner = definition.name?.value ?? "";
  }

  find(): QueryUse[] {
    visit(
      this.definition,
      visitWithTypeInfo(this.info, {
        [Kind.FIELD]: (node) => {
          this.field(node);
        },
        [Kind.VARIABLE_DEFINITION]: (node) => {
          this.variable(node);
        },
        [Kind.OBJECT_FIELD]: (node) => {
          this.inputField(node);
        },
        [Kind.ENUM]: (node) => {
          const type = getNamedType(this.info.getInputType());
          if (isEnumType(type)) this.add(memberOf(type.name, node.value), "sends", node);
        },
        [Kind.OBJECT]: (node) => {
          this.inputObject(node);
        },
        [Kind.DIRECTIVE]: (node) => {
          this.directive(node);
        },
        [Kind.INLINE_FRAGMENT]: {
          enter: ({ typeCondition }) => {
            if (typeCondition) this.add(printCoordinate(typeCondition.name.value), "matches", typeCondition);
          },
        },
        [Kind.SELECTION_SET]: (node) => {
          this.selections(node);
        },
        [Kind.FRAGMENT_DEFINITION]: ({ typeCondition }) => {
          this.add(printCoordinate(typeCondition.name.value), "names", typeCondition);
        },
      }),
    );
    return this.uses;
  }

  private add(coordinate: Coordinate, kind: UseKind, node: ASTNode, more?: Pick<QueryUse, "keys" | "selected">): void {
    this.uses.push({ coordinate, kind, owner: this.owner, operations: [], place: placeOfNode(node), ...more });
  }

  private field(node: FieldNode): void {
    const parent = this.info.getParentType();
    const field = this.info.getFieldDef();
    if (parent && node.name.value === "__typename") this.tellsApart(parent, node);
    if (!parent || !field || field.name.startsWith("__")) return;
    const type = getNamedType(field.type);
    const selected = node.selectionSet && selectedIn(node.selectionSet, this.sent.fragments);
    this.add(memberOf(parent.name, field.name), "selects", node, selected && { selected });
    if (isEnumType(type) || isScalarType(type) || isAbstractType(type))
      this.add(printCoordinate(type.name), "selects", node);
    if (isAbstractType(type) && node.selectionSet) this.abstractSelection(type, node.selectionSet, node);
    this.givenArguments(memberOf(parent.name, field.name), field.args, node);
  }

  /** Records a use of the name of each possible type. */
  private tellsApart(type: GraphQLCompositeType, node: ASTNode): void {
    for (const { name } of possibleTypes(this.schema, type)) this.add(printCoordinate(name, "byName"), "matches", node);
  }

  private abstractSelection(type: GraphQLAbstractType, set: SelectionSetNode, node: ASTNode): void {
    const { isTold, keys } = memberNeeds(set, type, { schema: this.schema, fragments: this.sent.fragments });
    if (isTold) {
      this.add(printCoordinate(type.name, "toldApart"), "matches", node);
      this.tellsApart(type, node);
    }
    if (keys.some((ways) => ways.every((way) => way.length > 0)))
      this.add(printCoordinate(type.name, isTold ? "sharedKeyToldApart" : "sharedKey"), "matches", node, { keys });
  }

  /** @param owner the field or directive */
  private givenArguments(
    owner: Coordinate,
    declared: readonly GraphQLArgument[],
    node: FieldNode | DirectiveNode,
  ): void {
    for (const { name } of declared) {
      const argument = argumentOf(owner, name);
      const given = node.arguments?.find((each) => each.name.value === name);
      if (!given) this.add(printCoordinate(argument, "omitted"), "passes", node);
      else this.given(argument, "passes", given);
    }
  }

  /** Records the use of a value's target, and of how the value is given. */
  private given(coordinate: Coordinate, kind: UseKind, node: ArgumentNode | ObjectFieldNode): void {
    this.add(coordinate, kind, node);
    if (node.value.kind === Kind.VARIABLE) this.add(printCoordinate(coordinate, "variable"), kind, node);
    if (mayBeNull(node.value, this.sent.maybeNull)) this.add(printCoordinate(coordinate, "maybeNull"), kind, node);
  }

  private variable({ type: node, variable }: VariableDefinitionNode): void {
    const type = typeFromAST(this.schema, node);
    if (!type) return;
    this.add(printCoordinate(getNamedType(type).name, "variable"), "sends", variable);
    sendsType(getNamedType(type), (coordinate) => {
      this.add(coordinate, "sends", variable);
    });
  }

  private inputField(node: ObjectFieldNode): void {
    const parent = getNamedType(this.info.getParentInputType());
    if (isInputObjectType(parent)) this.given(memberOf(parent.name, node.name.value), "sends", node);
  }

  private inputObject(node: ObjectValueNode): void {
    const type = getNamedType(this.info.getInputType());
    if (!isInputObjectType(type)) return;
    // An input that is written out is affected by the fields that it leaves out.
    for (const field of Object.values(type.getFields()))
      if (!node.fields.some(({ name }) => name.value === field.name))
        this.add(printCoordinate(memberOf(type.name, field.name), "omitted"), "sends", node);
    this.add(printCoordinate(type.name, "built"), "sends", node);
  }

  private directive(node: DirectiveNode): void {
    const coordinate = directiveOf(node.name.value);
    this.add(coordinate, "names", node);
    this.givenArguments(coordinate, this.schema.getDirective(node.name.value)?.args ?? [], node);
  }

  private selections({ selections }: SelectionSetNode): void {
    const parent = this.info.getParentType();
    if (!parent) return;
    for (const selection of selections) {
      const condition = this.conditionOf(selection);
      const other = condition === undefined ? undefined : this.schema.getType(condition);
      if (other && isCompositeType(other) && other !== parent)
        for (const bridge of bridges(this.schema, parent, other)) this.add(bridge, "matches", selection);
    }
  }

  /** Returns the type condition of a fragment. */
  private conditionOf(selection: SelectionNode): string | undefined {
    switch (selection.kind) {
      case Kind.FIELD:
        return undefined;
      case Kind.INLINE_FRAGMENT:
        return selection.typeCondition?.name.value;
      case Kind.FRAGMENT_SPREAD:
        return this.sent.fragments.get(selection.name.value)?.typeCondition.name.value;
    }
  }
}

/** Whether the value sent is null, or may be. */
function mayBeNull(value: ValueNode, maybeNull: ReadonlySet<string>): boolean {
  return value.kind === Kind.NULL || (value.kind === Kind.VARIABLE && maybeNull.has(value.name.value));
}

/** The object types that a value of a type can have. */
function possibleTypes(schema: GraphQLSchema, type: GraphQLCompositeType): readonly GraphQLObjectType[] {
  return isAbstractType(type) ? schema.getPossibleTypes(type) : [type];
}

/** The facts that a fragment inside another type depends on: the possible types of both implement the interfaces. */
function bridges(schema: GraphQLSchema, outer: GraphQLCompositeType, inner: GraphQLCompositeType): Coordinate[] {
  const inside = new Set(possibleTypes(schema, inner));
  const shared = possibleTypes(schema, outer).filter((type) => inside.has(type));
  const interfaces = [outer, inner].filter(isInterfaceType);
  const unions = [outer, inner].filter(isUnionType);
  const pairs = [...shared, ...interfaces];
  const ofUnions = unions.flatMap((union) => shared.map((type) => bridgeOf(type.name, union.name)));
  const ofInterfaces = pairs.flatMap((type) =>
    interfaces
      .filter((each) => each !== type && type.getInterfaces().includes(each))
      .map((each) => bridgeOf(type.name, each.name)),
  );
  return [...ofUnions, ...ofInterfaces];
}

/** The names of the selected fields, and the types of the fragments, all of them read. */
function selectedIn(
  set: SelectionSetNode,
  fragments: ReadonlyMap<string, FragmentDefinitionNode>,
  {
    found = new Set<string>(),
    seen = new Set<SelectionSetNode>(),
  }: { readonly found?: Set<string> | undefined; readonly seen?: Set<SelectionSetNode> | undefined } = {},
): string[] {
  if (seen.has(set)) return [...found];
  seen.add(set);
  for (const selection of set.selections) {
    if (selection.kind === Kind.FIELD) {
      found.add(selection.name.value);
      continue;
    }
    const inner = selection.kind === Kind.INLINE_FRAGMENT ? selection : fragments.get(selection.name.value);
    if (!inner) continue;
    if (inner.typeCondition) found.add(`on ${inner.typeCondition.name.value}`);
    selectedIn(inner.selectionSet, fragments, { found, seen });
  }
  return [...found];
}

/** A variable of an input type may contain every field that the type reaches. */
function sendsType(type: GraphQLNamedType, add: (coordinate: Coordinate) => void, seen = new Set<string>()): void {
  if (seen.has(type.name)) return;
  seen.add(type.name);
  add(printCoordinate(type.name));
  if (!isInputObjectType(type)) return;
  for (const field of Object.values(type.getFields())) {
    add(memberOf(type.name, field.name));
    sendsType(getNamedType(field.type), add, seen);
  }
}
