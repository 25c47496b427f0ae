import type { GraphqlContract, GraphqlField, TypeDefinition } from "../contract/model.js";
import { reachedTypes } from "../contract/childReferences.js";
import type { Shape } from "../contract/model.js";
import { sortedBy } from "../text/sortedBy.js";
import { verdicts, type Change } from "./change.js";
import { collectInto, type ChangeContext } from "./changeContext.js";
import { compareReferences } from "./compareReferences.js";
import { compareFieldTypes } from "./compareFieldTypes.js";
import { argumentsChanged } from "./rules/argumentsChanged.js";
import { fieldsChanged } from "./rules/fieldsChanged.js";

/** Every difference between two versions of a GraphQL schema, by schema coordinate. */
export function compareGraphql(before: GraphqlContract, after: GraphqlContract): Change[] {
  const changes: Change[] = [];
  const context = collectInto(changes, before, after);
  const faces = facesOf(before);
  for (const definition of sortedBy(before.types.values(), (type) => type.key)) {
    const successor = after.types.get(definition.key);
    if (!successor) typeGone(definition, context);
    else if (successor.role !== definition.role) kindChanged(definition, successor, context);
    else compareDefinitions(definition, successor, faces, context);
  }
  return changes;
}

/** Input types and enums are judged for the directions they are used in. */
function facesOf(contract: GraphqlContract): Record<"ask" | "answer", Set<string>> {
  const shapeOf = (key: string): Shape | undefined => contract.types.get(key)?.shape;
  const outputs = [...contract.fields.values()].filter(
    (field) => contract.types.get(field.coordinate.split(".")[0] ?? "")?.role !== "input",
  );
  return {
    ask: reachedTypes(
      outputs.flatMap((field) => field.arguments.map((argument) => argument.type.shape)),
      shapeOf,
    ),
    answer: reachedTypes(
      outputs.map((field) => field.type.shape),
      shapeOf,
    ),
  };
}

function typeGone(type: TypeDefinition, context: ChangeContext): void {
  context.report("type.gone", "operation", type.key, `The ${type.role ?? "type"} \`${type.key}\` is gone.`, {
    verdict: verdicts.bothBreak,
    before: type.place,
    coordinates: [type.key],
  });
}

function kindChanged(before: TypeDefinition, after: TypeDefinition, context: ChangeContext): void {
  const message = `\`${before.key}\` was ${article(before.role)} and is ${article(after.role)}.`;
  context.report("type.kind.changed", "operation", before.key, message, {
    verdict: verdicts.bothBreak,
    before: before.place,
    after: after.place,
    coordinates: [before.key],
  });
}

function article(role: string | undefined): string {
  return `${/^[aeiou]/.test(role ?? "") ? "an" : "a"} ${role ?? "type"}`;
}

function compareDefinitions(
  before: TypeDefinition,
  after: TypeDefinition,
  faces: Record<"ask" | "answer", Set<string>>,
  context: ChangeContext,
): void {
  switch (before.role) {
    case "object":
    case "interface":
      compareOutputFields(before, after, context);
      interfacesChanged(before, after, context);
      return;
    case "input":
      compareInputFields(before, after, context);
      return;
    case "enum":
    case "union":
      for (const face of ["ask", "answer"] as const) {
        if (!faces[face].has(before.key)) continue;
        compareReferences(
          {
            before: { shape: before.shape, nullable: false },
            after: { shape: after.shape, nullable: false },
            face,
            subject: before.key,
            placeBefore: before.place,
            placeAfter: after.place,
            coordinates: [before.key],
          },
          context,
          () => undefined,
        );
      }
      return;
    default:
      return;
  }
}

function compareOutputFields(before: TypeDefinition, after: TypeDefinition, context: ChangeContext): void {
  if (before.shape.kind !== "record" || after.shape.kind !== "record") return;
  const coordinateOf = (field: string): string[] => [`${before.key}.${field}`];
  const pairs = fieldsChanged(
    { before: before.shape, after: after.shape, face: "answer", subject: before.key, coordinateOf },
    context,
  );
  for (const { before: left, after: right } of pairs) {
    const coordinate = `${before.key}.${left.name}`;
    compareFieldTypes(left, right, "answer", coordinate, [coordinate], context);
    const fieldBefore = fieldAt(context.before, coordinate);
    const fieldAfter = fieldAt(context.after, coordinate);
    if (fieldBefore && fieldAfter) argumentsChanged(fieldBefore, fieldAfter, context);
  }
}

function fieldAt(contract: ChangeContext["before"], coordinate: string): GraphqlField | undefined {
  return contract.protocol === "graphql" ? contract.fields.get(coordinate) : undefined;
}

function compareInputFields(before: TypeDefinition, after: TypeDefinition, context: ChangeContext): void {
  if (before.shape.kind !== "record" || after.shape.kind !== "record") return;
  const coordinateOf = (field: string): string[] => [`${before.key}.${field}`];
  for (const { before: left, after: right } of fieldsChanged(
    { before: before.shape, after: after.shape, face: "ask", subject: before.key, coordinateOf },
    context,
  )) {
    const coordinate = `${before.key}.${left.name}`;
    compareFieldTypes(left, right, "ask", coordinate, [coordinate], context);
  }
}

function interfacesChanged(before: TypeDefinition, after: TypeDefinition, context: ChangeContext): void {
  for (const name of before.implements ?? []) {
    if (after.implements?.includes(name)) continue;
    context.report(
      "type.interface.dropped",
      "operation",
      before.key,
      `\`${before.key}\` no longer implements \`${name}\`.`,
      {
        verdict: verdicts.bothBreak,
        before: before.place,
        after: after.place,
        coordinates: [before.key],
      },
    );
  }
  for (const name of after.implements ?? []) {
    if (before.implements?.includes(name) || !context.before.types.has(name)) continue;
    context.report("answer.member.new", "answer", name, `\`${name}\` can now be \`${after.key}\`.`, {
      verdict: verdicts.codeRiskyAppsBreak,
      after: after.place,
      coordinates: [name],
    });
  }
}
