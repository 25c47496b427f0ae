import {
  buildASTSchema,
  isTypeDefinitionNode,
  validateSchema,
  type ASTNode,
  type DefinitionNode,
  type FieldDefinitionNode,
  type GraphQLError,
  type GraphQLSchema,
} from "graphql";
import type { SetAside } from "../contract/model.js";
import { aside } from "./mergeDefinitions.js";
import { soundSchema, type SoundSchema } from "./soundSchema.js";

/** More rounds than a schema can need when one error hides the next. */
const mostRounds = 50;

/**
 * Builds the schema from the valid part of the definitions. Further parts that the reference implementation refuses,
 * such as input types that require each other without end, are skipped too.
 *
 * @param all the definitions of all texts
 */
export function validSchema(all: readonly DefinitionNode[]): {
  readonly schema: GraphQLSchema;
  readonly setAside: readonly SetAside[];
  readonly repeated: SoundSchema["repeated"];
} {
  let definitions = all;
  let repeated: SoundSchema["repeated"] = [];
  const setAside: SetAside[] = [];
  for (let round = 0; ; round++) {
    const sound = soundSchema(definitions);
    setAside.push(...sound.setAside);
    if (round === 0) ({ repeated } = sound);
    const schema = buildASTSchema(sound.document, { assumeValidSDL: true });
    const errors = validateSchema(schema).filter(isFault);
    const faulty = new Map(errors.flatMap((error) => (error.nodes ?? []).slice(0, 1).map((node) => [node, error])));
    const before = setAside.length;
    definitions = without(sound.document.definitions, faulty, setAside);
    if (setAside.length === before || round === mostRounds)
      return { schema: buildASTSchema(sound.document, { assumeValid: true }), setAside, repeated };
  }
}

/** A schema without a query type, such as one part of several, can still be typed. */
function isFault(error: GraphQLError): boolean {
  return !error.message.startsWith("Query root type must be provided");
}

function without(
  definitions: readonly DefinitionNode[],
  faulty: ReadonlyMap<ASTNode, GraphQLError>,
  setAside: SetAside[],
): DefinitionNode[] {
  return definitions.flatMap((definition): DefinitionNode[] => {
    if (!isTypeDefinitionNode(definition)) return [definition];
    const name = definition.name.value;
    const say = (what: string, node: ASTNode, error: GraphQLError): void => {
      setAside.push(aside(what, reason(error), node));
    };
    const own = faulty.get(definition);
    if (own) {
      say(name, definition, own);
      return [];
    }
    if (!("fields" in definition)) return [definition];
    const fields = ((definition.fields ?? []) as readonly FieldDefinitionNode[]).filter((field) => {
      const error = [...faulty].find(([node]) => holds(field, node))?.[1];
      if (error) say(`${name}.${field.name.value}`, field, error);
      return !error;
    });
    return [{ ...definition, fields } as DefinitionNode];
  });
}

function holds(field: FieldDefinitionNode, node: ASTNode): boolean {
  return (
    field === node ||
    field.type === node ||
    (field.arguments ?? []).some((argument) => argument === node || argument.type === node)
  );
}

function reason(error: GraphQLError): string {
  const text = error.message.replaceAll('"', "`").replace(/\.$/, "");
  return text.charAt(0).toLowerCase() + text.slice(1);
}
