import { Ajv2020 } from "ajv/dist/2020.js";
import {
  getNamedType,
  getNullableType,
  isInputObjectType,
  isListType,
  Kind,
  TypeInfo,
  typeFromAST,
  valueFromASTUntyped,
  visit,
  visitWithTypeInfo,
  type DocumentNode,
  type GraphQLInputType,
  type GraphQLSchema,
  type TypeNode,
  type ValueNode,
} from "graphql";
import { addFormats } from "./addFormats.js";

/** Returns the errors of scalars in a request, each as a sentence. */
export type ScalarCheck = (document: DocumentNode, variables: Readonly<Record<string, unknown>>) => string[];

/**
 * Creates a check of scalars in requests.
 *
 * @param scalars the formats of scalars, by name
 */
export function scalarCheck(schema: GraphQLSchema, scalars: ReadonlyMap<string, string>): ScalarCheck {
  if (scalars.size === 0) return () => [];
  const fits = formatCheck();
  const complaint = (type: GraphQLInputType, value: unknown): string[] => {
    const { name } = getNamedType(type);
    const format = scalars.get(name);
    if (format === undefined || value === null || value === undefined || fits(format, value)) return [];
    return [`${JSON.stringify(value)} is not a valid ${name}. Write it as ${format}.`];
  };
  const inside = (type: GraphQLInputType, value: unknown): string[] => {
    const solid: GraphQLInputType = getNullableType(type);
    if (isListType(solid) && Array.isArray(value)) return value.flatMap((item) => inside(solid.ofType, item));
    if (isInputObjectType(solid) && typeof value === "object" && value !== null)
      return Object.values(solid.getFields()).flatMap((field) =>
        inside(field.type, (value as Record<string, unknown>)[field.name]),
      );
    return complaint(solid, value);
  };
  return (document, variables) => {
    const found: string[] = [];
    const info = new TypeInfo(schema);
    const literal = (node: ValueNode): void => {
      const type = info.getInputType();
      if (type && !isListType(getNullableType(type))) found.push(...complaint(type, valueFromASTUntyped(node)));
    };
    visit(
      document,
      visitWithTypeInfo(info, {
        [Kind.VARIABLE_DEFINITION]({ variable, type: written }) {
          const type = typeFromAST(schema, written as TypeNode & { kind: Kind.NAMED_TYPE });
          if (type) found.push(...inside(type as GraphQLInputType, variables[variable.name.value]));
        },
        [Kind.STRING]: literal,
        [Kind.INT]: literal,
        [Kind.FLOAT]: literal,
        [Kind.BOOLEAN]: literal,
      }),
    );
    return found;
  };
}

/** Whether a value has a format. Every value has an unknown one. */
function formatCheck(): (format: string, value: unknown) => boolean {
  const ajv = new Ajv2020({ strict: false });
  addFormats(ajv);
  return (format, value) => {
    if (/^u?int\d*$/.test(format))
      return Number.isInteger(value) || (typeof value === "string" && /^-?\d+$/.test(value));
    if (!Object.hasOwn(ajv.formats, format)) return true;
    return typeof value === "string" && ajv.validate({ type: "string", format }, value);
  };
}
