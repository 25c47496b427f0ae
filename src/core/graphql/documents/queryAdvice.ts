import {
  Kind,
  TypeInfo,
  visit,
  visitWithTypeInfo,
  type ASTNode,
  type DocumentNode,
  type GraphQLError,
  type GraphQLSchema,
} from "graphql";
import { didYouMean } from "../../text/nearest.js";
import { argumentsOf, conditions, fieldsOf, instead, quoted, valuesOf } from "../schemaNames.js";

/** The explanation of an error in a query: what is wrong, and what to write instead. */
export interface Advice {
  readonly message: string;
  readonly hint?: string | undefined;
}

/** The facts that explanations need. */
export interface Advising {
  readonly schema: GraphQLSchema;
  readonly document: DocumentNode;
}

/**
 * Rewrites an error of the reference implementation without losing anything: values stay as they were written, quotes
 * included, and there is a fix.
 *
 * @param error an error of parsing or validating
 */
export function queryAdvice(error: GraphQLError, advising: Advising): Advice {
  const { message } = error;
  for (const [pattern, advise] of forms) {
    const parts = pattern.exec(message);
    if (parts) {
      const advice = advise(parts.slice(1).map(String), { ...advising, node: error.nodes?.[0] });
      if (advice) return advice;
    }
  }
  const [, said = message, suggestion] = /^(.*?\.) (Did you mean .*\?)$/s.exec(message) ?? [];
  return { message: ticked(said), hint: suggestion === undefined ? undefined : ticked(suggestion) };
}

interface At extends Advising {
  readonly node: ASTNode | undefined;
}

/** A pattern for a message, and the advice from its parts; undefined if the message stays as it is. */
type Form = readonly [RegExp, (parts: readonly string[], at: At) => Advice | undefined];

const forms: readonly Form[] = [
  [/^Enum "(\w+)" cannot represent non-enum value: (.*?)\.?(?: Did you mean .*)?$/s, enumValue],
  [
    /^Value "(\w+)" does not exist in "(\w+)" enum\./,
    ([value = "", name = ""], { schema }) => ({
      message: `\`${name}\` has no value \`${value}\`.`,
      hint: didYouMean(value, valuesOf(schema, name)) ?? `It has ${quoted(valuesOf(schema, name))}.`,
    }),
  ],
  [/^(\w+) cannot represent (?:a )?(non.*?) value: (.*)$/s, scalarValue],
  [
    /^Expected value of type "([^"]+)", found (.*)\.$/s,
    ([type = "", found = ""]) => ({
      message: `\`${type}\` is expected, but \`${found}\` was found.`,
      hint: found === "null" ? `Null is not allowed here. Use a value, or omit it if it has a default.` : undefined,
    }),
  ],
  [
    /^Unknown fragment "(\w+)"\.$/,
    ([name = ""], { document }) => {
      const known = document.definitions.flatMap((each) =>
        each.kind === Kind.FRAGMENT_DEFINITION ? [each.name.value] : [],
      );
      const hint = didYouMean(name, known) ?? `Write it: \`fragment ${name} on … { … }\`.`;
      return { message: `There is no fragment \`${name}\`.`, hint };
    },
  ],
  [
    /^Field "(\w+)" argument "(\w+)" of type "([^"]+)" is required, but it was not provided\.$/,
    ([field = "", argument = "", type = ""]) => ({
      message: `\`${field}\` requires the argument \`${argument}\`.`,
      hint: `Write \`${field}(${argument}: …)\` with a value, or with a variable \`$${argument}: ${type}\`.`,
    }),
  ],
  [
    /^Directive "@(\w+)" argument "(\w+)" of type "([^"]+)" is required, but it was not provided\.$/,
    ([directive = "", argument = "", type = ""]) => ({
      message: `\`@${directive}\` requires the argument \`${argument}\`.`,
      hint: `Write \`@${directive}(${argument}: …)\` with a value of \`${type}\`.`,
    }),
  ],
  [
    /^Field "(\w+)\.(\w+)" of required type "([^"]+)" was not provided\.$/,
    ([type = "", field = "", expected = ""]) => ({
      message: `\`${type}\` requires the field \`${field}\`.`,
      hint: `Add \`${field}: …\`, a value of \`${expected}\`.`,
    }),
  ],
  [
    /^Field "(\w+)" is not defined by type "(\w+)"\./,
    ([field = "", type = ""], { schema }) => ({
      message: `\`${type}\` has no field \`${field}\`.`,
      hint: instead(field, fieldsOf(schema.getType(type))),
    }),
  ],
  [
    /^Unknown argument "(\w+)" on field "(\w+)\.(\w+)"\./,
    ([argument = "", type = "", field = ""], { schema }) => {
      const names = argumentsOf(schema.getType(type), field);
      return {
        message: `\`${type}.${field}\` has no argument \`${argument}\`.`,
        hint: names.length === 0 ? `It has no arguments: write \`${field}\` alone.` : instead(argument, names),
      };
    },
  ],
  [
    /^Unknown argument "(\w+)" on directive "@(\w+)"\./,
    ([argument = "", directive = ""], { schema }) => ({
      message: `\`@${directive}\` has no argument \`${argument}\`.`,
      hint: instead(
        argument,
        (schema.getDirective(directive)?.args ?? []).map(({ name }) => name),
      ),
    }),
  ],
  [
    /^Unknown directive "@(\w+)"\.$/,
    ([name = ""], { schema }) => ({
      message: `The schema has no directive \`@${name}\`.`,
      hint: instead(
        `@${name}`,
        schema.getDirectives().map((each) => `@${each.name}`),
      ),
    }),
  ],
  [
    /^Directive "@(\w+)" may not be used on (\w+)\.$/,
    ([name = "", place = ""], { schema }) => ({
      message: `\`@${name}\` is not allowed at ${placeWords(place)}.`,
      hint: `It is allowed at ${(schema.getDirective(name)?.locations ?? []).map(placeWords).join(", ")}.`,
    }),
  ],
  [/^Variable "\$(\w+)" is not defined(?: by operation "(\w+)")?\.$/, undefinedVariable],
  [
    /^Variable "\$(\w+)" is never used in operation "(\w+)"\.$/,
    ([name = "", operation = ""]) => ({
      message: `\`${operation}\` never uses its variable \`$${name}\`.`,
      hint: `Use it, or remove \`$${name}\` from the first line.`,
    }),
  ],
  [
    /^Variable "\$(\w+)" of type "([^"]+)" used in position expecting type "([^"]+)"\.$/,
    ([name = "", type = "", expected = ""]) => ({
      message: `\`$${name}\` is \`${type}\`, and \`${expected}\` is expected here.`,
      hint: `Declare it as \`$${name}: ${expected}\`.`,
    }),
  ],
  [
    /^Variable "\$(\w+)" is of type "([^"]+)" but must be non-nullable to be used for OneOf Input Object "(\w+)"\.$/,
    ([name = "", type = "", input = ""]) => ({
      message: `\`${input}\` requires exactly one field that is not null, but \`$${name}\` can be null.`,
      hint: `Declare it as \`$${name}: ${type}!\`.`,
    }),
  ],
  [
    /^OneOf Input Object "(\w+)" must specify exactly one key\.$/,
    ([input = ""], { schema }) => ({
      message: `\`${input}\` requires exactly one of its fields.`,
      hint: `Set exactly one of ${quoted(fieldsOf(schema.getType(input)))}.`,
    }),
  ],
  [
    /^Field "(\w+)\.(\w+)" must be non-null\.$/,
    ([input = "", field = ""], { schema }) => ({
      message: `\`${input}\` requires exactly one of its fields, not null.`,
      hint: `Set \`${field}\` to a value, or set another one of ${quoted(fieldsOf(schema.getType(input)))}.`,
    }),
  ],
  [
    /^Fragment (?:"(\w+)" )?cannot be spread here as objects of type "(\w+)" can never be of type "(\w+)"\.$/,
    (parts, { schema }) => {
      const [, outer = "", inner = ""] = parts;
      return {
        message: `A \`${outer}\` is never a \`${inner}\`.`,
        hint: `A fragment here can be on ${conditions(schema, outer)}.`,
      };
    },
  ],
  [
    /^Fragment (?:"(\w+)" )?cannot condition on non composite type "(\w+)"\.$/,
    ([, type = ""]) => ({
      message: `A fragment cannot be on \`${type}\`, which has no fields.`,
      hint: "A fragment must be on an object, an interface or a union.",
    }),
  ],
  [
    /^Cannot query field "(\w+)" on type "(\w+)"\.$/,
    ([field = "", type = ""], { schema }) => {
      const fields = fieldsOf(schema.getType(type));
      const hint =
        fields.length === 0
          ? `It is a union: select inside a fragment on ${conditions(schema, type)}.`
          : `It has ${quoted(fields)}.`;
      return { message: `Cannot query field \`${field}\` on type \`${type}\`.`, hint };
    },
  ],
  [
    /^Field "(\w+)" must not have a selection since type "([^"]+)" has no subfields\.$/,
    ([field = "", type = ""]) => ({
      message: `\`${field}\` is \`${type}\`, which has no fields to select.`,
      hint: `Write \`${field}\` alone.`,
    }),
  ],
  [
    /^Field "(\w+)" of type "([^"]+)" must have a selection of subfields\./,
    ([field = "", type = ""], { schema }) => {
      const fields = fieldsOf(schema.getType(type.replace(/[[\]!]/g, "")));
      const [first = "__typename"] = fields;
      return {
        message: `\`${field}\` is \`${type}\`, so fields must be selected.`,
        hint: `Write \`${field} { ${first} }\`${fields.length > 1 ? `; it has ${quoted(fields)}` : ""}.`,
      };
    },
  ],
];

function enumValue([name = "", value = ""]: readonly string[], { schema }: At): Advice {
  const values = valuesOf(schema, name);
  const plain = /^"(.*)"$/s.exec(value)?.[1];
  const hint =
    plain !== undefined && values.includes(plain)
      ? `Write \`${plain}\`, without quotes.`
      : (didYouMean(plain ?? value, values) ?? `It has ${quoted(values)}.`);
  return { message: `\`${value}\` is not a value of \`${name}\`.`, hint };
}

function scalarValue([type = "", what = "", value = ""]: readonly string[]): Advice {
  const message = what.includes("32-bit")
    ? `\`${value}\` is too large for \`${type}\`, which has 32 bits.`
    : `\`${value}\` is not a valid \`${type}\`.`;
  const plain = /^"(.*)"$/s.exec(value)?.[1];
  const fits = { Int: /^-?\d+$/, Float: /^-?\d+(?:\.\d+)?$/, Boolean: /^(?:true|false)$/ } as const;
  if (plain !== undefined && type in fits && fits[type as keyof typeof fits].test(plain))
    return { message, hint: `Write \`${plain}\`, without quotes.` };
  if ((type === "String" || type === "ID") && plain === undefined && /^[\w.-]+$/.test(value))
    return { message, hint: `Write \`"${value}"\`, in quotes.` };
  return { message };
}

function undefinedVariable([name = "", operation]: readonly string[], { schema, document, node }: At): Advice {
  const named = operation === undefined || operation === "undefined" ? undefined : operation;
  const owner = document.definitions.find(
    (each) => each.kind === Kind.OPERATION_DEFINITION && each.name?.value === named,
  );
  const known =
    owner?.kind === Kind.OPERATION_DEFINITION
      ? (owner.variableDefinitions ?? []).map(({ variable }) => `$${variable.name.value}`)
      : [];
  const type = typeWanted(schema, document, node);
  const declare = type === undefined ? undefined : `Declare it in the first line: \`$${name}: ${type}\`.`;
  return {
    message: `${named === undefined ? "The operation" : `\`${named}\``} declares no variable \`$${name}\`.`,
    hint: didYouMean(`$${name}`, known) ?? declare,
  };
}

/** The expected type at the place of a variable. */
function typeWanted(schema: GraphQLSchema, document: DocumentNode, node: ASTNode | undefined): string | undefined {
  const info = new TypeInfo(schema);
  let found: string | undefined;
  visit(
    document,
    visitWithTypeInfo(info, {
      [Kind.VARIABLE](variable) {
        if (variable === node) found = info.getInputType()?.toString();
      },
    }),
  );
  return found;
}

/** "FRAGMENT_SPREAD" in words. */
function placeWords(place: string): string {
  const words = place.toLowerCase().replaceAll("_", " ");
  return `${/^[aeiou]/.test(words) ? "an" : "a"} ${words}`;
}

/** Replaces the quotes around names with this program's own. */
function ticked(message: string): string {
  return message.replaceAll('"', "`");
}
