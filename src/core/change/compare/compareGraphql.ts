import {
  argumentOf,
  bridgeOf,
  directiveOf,
  memberOf,
  printCoordinate,
  type Coordinate,
  typeOf,
} from "../../use/coordinate.js";
import { namedTypes, reachedTypes } from "../../contract/reachedTypes.js";
import type { Field, GraphqlContract, Shape, TypeDefinition } from "../../contract/model.js";
import { resolveReference } from "../../contract/resolveShape.js";
import { referenceSignature } from "../../contract/sameShape.js";
import { sortedBy } from "../../text/sortedBy.js";
import type { Change } from "../change.js";
import { applyRules, type ChangeContext } from "../changeContext.js";
import { comparedFields, ShapeWalk } from "./compareReferences.js";
import type { PointKind, Points } from "./points.js";
import { renamedTo } from "./renamedTo.js";
import { renamedTypes } from "./renamedTypes.js";
import type { SdkFacts } from "../sdkFacts.js";

/**
 * Returns every difference between two versions of a GraphQL schema, by schema coordinate.
 *
 * @param facts the facts of the SDK's language and settings
 */
export function compareGraphql(before: GraphqlContract, after: GraphqlContract, facts: SdkFacts): Change[] {
  return new GraphqlComparison(before, after, facts).changes;
}

class GraphqlComparison {
  readonly changes: Change[] = [];
  private readonly faces: Record<"ask" | "answer", Set<string>>;
  /** The new names of types that look renamed, by their old names. */
  private readonly renames: ReadonlyMap<string, string>;
  private readonly context: ChangeContext;

  constructor(
    private readonly before: GraphqlContract,
    private readonly after: GraphqlContract,
    private readonly facts: SdkFacts,
  ) {
    this.faces = facesOf(before);
    this.renames = renamedTypes(before, after);
    this.context = {
      before: before.types,
      after: after.types,
      facts,
      isGraphql: true,
      signatures: { before: referenceSignature, after: referenceSignature },
      joins: (type) => this.joins(type),
      at: (kind, point) => {
        this.at(kind, point);
      },
    };
    for (const definition of sortedBy(before.types.values(), (type) => type.key)) this.compareDefinition(definition);
    this.compareDirectives();
    this.compareFresh();
  }

  private at<K extends PointKind>(kind: K, point: Points[K]): void {
    applyRules(this.changes, kind, { point, facts: this.facts });
  }

  private compareDefinition(before: TypeDefinition): void {
    const renamed = this.renames.get(before.key);
    const after = this.after.types.get(before.key);
    const successor = renamed === undefined ? undefined : this.after.types.get(renamed);
    const other = after ?? successor;
    const isRoot = Object.values(this.before.roots).includes(before.key);
    const fields = isRoot && before.shape.kind === "record" ? before.shape.fields : [];
    const coordinates = [printCoordinate(before.key), ...fields.map(({ name }) => memberOf(before.key, name))];
    const point = { subject: before.key, face: "operation", coordinates } as const;
    const places = { placeBefore: before.place, placeAfter: other?.place };
    this.at("definition", { ...point, ...places, before, after, successor: after ? undefined : successor });
    if (!other || other.role !== before.role) return;
    switch (before.role) {
      case "object":
      case "interface":
        this.compareOutput(before, other);
        this.compareInterfaces(before, other);
        return;
      case "input":
        this.compareInput(before, other);
        return;
      case "enum":
      case "union":
        for (const face of ["ask", "answer"] as const) {
          if (!this.faces[face].has(before.key)) continue;
          new ShapeWalk(this.context, () => undefined).compareNamed(
            {
              ...point,
              ...places,
              face,
              coordinates: [printCoordinate(before.key)],
              owner: [printCoordinate(before.key)],
              before: { shape: before.shape, nullable: false },
              after: { shape: other.shape, nullable: false },
            },
            before.shape,
            other.shape,
          );
          this.compareDeprecations(before, other, face);
        }
        return;
      default:
        return;
    }
  }

  private compareDeprecations(before: TypeDefinition, after: TypeDefinition, face: "ask" | "answer"): void {
    if (before.shape.kind !== "choice" || after.shape.kind !== "choice") return;
    for (const choice of before.shape.values) {
      const other = after.shape.values.find(({ value }) => value === choice.value);
      if (!other || choice.deprecated !== undefined || other.deprecated === undefined) continue;
      const subject = memberOf(before.key, String(choice.value));
      const places = { placeBefore: before.place, placeAfter: after.place };
      this.at("listed", {
        ...places,
        face,
        subject,
        coordinates: [printCoordinate(subject)],
        before: choice,
        after: other,
      });
    }
  }

  private compareOutput(before: TypeDefinition, after: TypeDefinition): void {
    if (before.shape.kind !== "record" || after.shape.kind !== "record") return;
    const owner = [printCoordinate(before.key)];
    const pair = { face: "answer", subject: before.key, coordinates: owner, owner } as const;
    const coordinatesOf = (field: string): Coordinate[] => [memberOf(before.key, field)];
    for (const { left, right, point, names } of comparedFields(pair, before.shape, {
      after: after.shape,
      context: this.context,
      coordinatesOf,
    })) {
      const [coordinate = ""] = point.coordinates;
      this.compareTypes({ ...point, face: "answer", before: left, after: right });
      const [oldName, newName] = names;
      const fieldBefore = this.before.fields.get(memberOf(before.key, oldName));
      const fieldAfter = this.after.fields.get(memberOf(after.key, newName));
      if (fieldBefore && fieldAfter)
        this.compareArguments(coordinate, coordinate, { before: fieldBefore.arguments, after: fieldAfter.arguments });
    }
  }

  private compareInput(before: TypeDefinition, after: TypeDefinition): void {
    if (before.shape.kind !== "record" || after.shape.kind !== "record") return;
    const places = { placeBefore: before.place, placeAfter: after.place };
    const owner = [printCoordinate(before.key), printCoordinate(before.key, "built")];
    const pair = { face: "ask", subject: before.key, coordinates: owner, owner } as const;
    const records = { before: before.shape, after: after.shape, isGraphql: true };
    this.at("record", { ...pair, ...places, ...records });
    const coordinatesOf = (field: string): Coordinate[] => [memberOf(before.key, field)];
    const required = (shape: Shape, name: string): boolean =>
      shape.kind === "record" && shape.fields.some((field) => field.name === name && field.required);
    for (const { left, right, point, names } of comparedFields(pair, before.shape, {
      after: after.shape,
      context: this.context,
      coordinatesOf,
    })) {
      const toldAlready = !required(before.shape, names[0]) && required(after.shape, names[1]);
      this.compareTypes({
        ...point,
        face: "ask",
        before: toldAlready ? { ...left, nullable: right.nullable } : left,
        after: right,
      });
    }
  }

  /** @param owner the coordinate of the field or directive that all uses have */
  private compareArguments(
    owner: string,
    subject: string,
    { before, after }: { readonly before: readonly Field[]; readonly after: readonly Field[] },
  ): void {
    const gone = before.filter((argument) => !after.some((each) => each.name === argument.name));
    const fresh = after.filter((argument) => !before.some((each) => each.name === argument.name));
    const renamed = new Set<string>();
    const pointOf = (name: string) =>
      ({
        owner: subject,
        isGraphql: true,
        face: "ask",
        subject: `${subject}(${name}:)`,
        coordinates: [argumentOf(owner, name)],
      }) as const;
    for (const argument of before) {
      const other = after.find((each) => each.name === argument.name);
      const successor = other
        ? undefined
        : renamedTo(argument, { gone, fresh, owner: subject }, this.context.signatures);
      if (successor) renamed.add(successor.name);
      const places = { placeBefore: argument.place, placeAfter: (other ?? successor)?.place };
      const point = { ...pointOf(argument.name), ...places };
      this.at("parameter", { ...point, before: argument, after: other, successor });
      if (!other) continue;
      // If null can no longer be sent, a value is required. This is one change.
      const toldAlready = !argument.required && other.required;
      this.compareTypes({
        ...point,
        before: toldAlready ? { ...argument.type, nullable: other.type.nullable } : argument.type,
        after: other.type,
      });
    }
    for (const argument of fresh)
      if (!renamed.has(argument.name) || argument.required)
        this.at("parameter", { ...pointOf(argument.name), after: argument, placeAfter: argument.place });
  }

  /** Compares the types of two fields. Another named type is another type, however similar it is. */
  private compareTypes(point: Omit<Points["value"], "isGraphql">): void {
    const face = point.face === "ask" ? "ask" : "answer";
    const { coordinates } = point;
    const other = (left: string, right: string): void => {
      if (left === right || this.renames.get(left) === right) return;
      const from = this.before.types.get(left);
      const to = this.after.types.get(right);
      const shapes = {
        before: { shape: scalarOr(from, left), nullable: false },
        after: { shape: scalarOr(to, right), nullable: false },
      };
      if (from?.role === "enum" && to?.role === "enum" && face === "answer") {
        const pair = { ...point, ...shapes, face, owner: coordinates } as const;
        new ShapeWalk(this.context, () => undefined).compareNamed(pair, from.shape, to.shape);
        return;
      }
      const kept = from && to && face === "answer" ? this.keptSelections(from, to) : undefined;
      this.at("value", { ...point, ...shapes, isGraphql: true, kept });
    };
    const isNamed = (key: string): boolean => this.before.types.has(key) || this.after.types.has(key);
    new ShapeWalk(this.context, other, isNamed).compare({
      ...point,
      face,
      owner: coordinates,
      // GraphQL, section 3.11.
      asListOfOne: face === "ask" ? "whole" : undefined,
    });
  }

  /** The selections that give the same result if the value has another type: fields, and fragments on a type. */
  private keptSelections(from: TypeDefinition, to: TypeDefinition): string[] {
    const fields =
      from.shape.kind === "record" && to.shape.kind === "record"
        ? from.shape.fields.filter(({ name }) => this.isSameField(`${from.key}.${name}`, `${to.key}.${name}`))
        : [];
    const kindsOf = ({ key, role, shape }: TypeDefinition, types: GraphqlContract["types"]): string[] =>
      role === "object"
        ? [key]
        : role === "union"
          ? [...namedTypes([shape])]
          : [...types.values()].filter((type) => type.implements?.includes(key)).map((type) => type.key);
    const possible = kindsOf(to, this.after.types);
    const isSame = String(kindsOf(from, this.before.types).sort()) === String([...possible].sort());
    const common = [to.key, ...this.joins(to.key)];
    const conditions = isSame ? [...possible, ...common] : from.role === "object" ? common : [];
    return [...fields.map(({ name }) => name), ...conditions.map((condition) => `on ${condition}`)];
  }

  /** The interfaces and unions of a type of the new schema. */
  private joins(key: string): string[] {
    const unions = [...this.after.types.values()].filter(
      ({ role, shape }) => role === "union" && namedTypes([shape]).has(key),
    );
    return [...(this.after.types.get(key)?.implements ?? []), ...unions.map((union) => union.key)];
  }

  /** Whether a field gives the same result for the same selection. */
  private isSameField(left: string, right: string): boolean {
    const before = this.before.fields.get(left);
    const after = this.after.fields.get(right);
    if (!before || !after || referenceSignature(before.type) !== referenceSignature(after.type)) return false;
    const signature = ({ name, type, required }: Field): string =>
      JSON.stringify([name, referenceSignature(type), required]);
    const taken = new Set(after.arguments.map(signature));
    const isTaken = before.arguments.every((argument) => taken.has(signature(argument)));
    const known = new Set(before.arguments.map(({ name }) => name));
    return isTaken && after.arguments.every(({ name, required }) => known.has(name) || !required);
  }

  private compareInterfaces(before: TypeDefinition, after: TypeDefinition): void {
    const places = { placeBefore: before.place, placeAfter: after.place };
    const nameNow = (name: string): string => this.renames.get(name) ?? name;
    const isOpen = this.facts.openUnions;
    const old = before.implements ?? [];
    for (const name of old) {
      if (!this.after.types.has(nameNow(name)) || after.implements?.includes(nameNow(name)) === true) continue;
      const point = { face: "operation", subject: before.key, coordinates: [bridgeOf(before.key, name)] } as const;
      this.at("implementation", { ...point, ...places, type: before.key, before: name, isOpen });
    }
    const known = new Set(old.map(nameNow));
    for (const name of after.implements ?? []) {
      if (known.has(name) || !this.before.types.has(name) || after.role !== "object") continue;
      const point = { face: "answer", subject: name, coordinates: [printCoordinate(name, "toldApart")] } as const;
      this.at("implementation", {
        ...point,
        ...places,
        type: after.key,
        after: name,
        joins: this.joins(after.key),
        isOpen,
      });
    }
  }

  private compareDirectives(): void {
    for (const [name, directive] of this.before.directives) {
      const other = this.after.directives.get(name);
      const coordinate = directiveOf(name);
      const point = { subject: coordinate, face: "operation", coordinates: [coordinate] } as const;
      if (other) this.compareArguments(coordinate, coordinate, { before: directive.arguments, after: other.arguments });
      else this.at("directive", { ...point, placeBefore: directive.place, before: name });
    }
  }

  /** Types that are completely new. */
  private compareFresh(): void {
    const fresh = [...this.after.types.values()].filter(({ key }) => !this.before.types.has(key));
    const taken = new Set(this.renames.values());
    for (const type of fresh) {
      if (taken.has(type.key) || type.role !== "object") continue;
      for (const name of type.implements ?? []) {
        if (!this.before.types.has(name)) continue;
        const point = {
          face: "answer",
          subject: name,
          coordinates: [printCoordinate(name, "toldApart")],
          placeAfter: type.place,
        } as const;
        this.at("implementation", {
          ...point,
          type: type.key,
          after: name,
          joins: this.joins(type.key),
          isOpen: this.facts.openUnions,
        });
      }
    }
  }
}

/** The directions in which input types and enums are used. */
function facesOf(contract: GraphqlContract): Record<"ask" | "answer", Set<string>> {
  const shapeOf = (key: string): Shape | undefined => contract.types.get(key)?.shape;
  const outputs = [...contract.fields.values()].filter(
    (field) => contract.types.get(typeOf(field.coordinate))?.role !== "input",
  );
  const asked = [
    ...outputs.flatMap((field) => field.arguments),
    ...[...contract.directives.values()].flatMap((directive) => directive.arguments),
  ];
  return {
    ask: reachedTypes(
      asked.map((argument) => argument.type.shape),
      shapeOf,
    ),
    answer: reachedTypes(
      outputs.map((field) => field.type.shape),
      shapeOf,
    ),
  };
}

/** The text for a type in a sentence, and in a comparison of leaves. */
function scalarOr(type: TypeDefinition | undefined, key: string): Shape {
  return type?.role === "scalar"
    ? resolveReference({ shape: type.shape, nullable: false }, new Map()).shape
    : { kind: "named", key };
}
