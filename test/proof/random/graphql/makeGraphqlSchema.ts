import type { Randomness } from "../randomness.js";

/** The parts of every random schema, and the scalars' types in the SDK. */
export const scalars = new Map([["Stamp", "string"]]);

const leaves = ["String", "Int", "Float", "Boolean", "ID", "Mood", "Stamp", "Loose"] as const;
const objects = ["Oak", "Pine", "Reed", "Fern", "Moss", "Vine"] as const;

/** Returns a valid schema as text: interfaces that implement each other, unions, recursive and one-of inputs. */
export function makeGraphqlSchema(random: Randomness): string {
  const described = (text: string): string =>
    random.chance(0.1)
      ? `${random.hit("description", '"""Closes */ a comment, `tick`, ${code} and @internal."""')} ${text}`
      : text;
  const old = (): string =>
    random.chance(0.06) ? random.hit("deprecated field", ' @deprecated(reason: "*/ old")') : "";
  const wrapped = (name: string): string => {
    const inner = random.chance(0.5) ? `${name}!` : name;
    if (random.chance(0.7)) return inner;
    const list = `[${inner}]${random.chance(0.5) ? random.hit("list", "!") : random.hit("nullable list", "")}`;
    return random.chance(0.2) ? random.hit("list of lists", `[${list}]${random.chance(0.5) ? "!" : ""}`) : list;
  };
  const argumentsOf = (): string => {
    if (random.chance(0.7)) return "";
    const kinds = ["of: Int", 'text: String! = "a`${b}"', "want: Want", "by: Choose", "moods: [Mood!]", "must: Mood!"];
    return `(${random.hit("argument", kinds.filter(() => random.chance(0.4)).join(", ")) || "of: Int"})`;
  };
  const fields = (prefix: string, count: number, types: readonly string[]): string[] =>
    Array.from({ length: count }, (_, at) =>
      described(`${prefix}${String(at)}${argumentsOf()}: ${wrapped(random.pick(types))}${old()}`),
    );
  const composites = [...objects, "Node", "Tall", "Plant", "Wet"];
  const anything = [...leaves, ...leaves, ...composites];
  const node = ["id: ID!", ...fields("n", 2, anything)];
  const tall = [...node, ...fields("t", 2, anything)];
  const isTall = new Map(objects.map((name) => [name, name === "Oak" || random.chance(0.5)]));
  const types = objects.map((name) => {
    const shared = isTall.get(name) === true ? tall : random.chance(0.6) ? node : [];
    const own = fields(name.toLowerCase().slice(0, 1), 2 + random.below(3), anything);
    const ifaces = shared === tall ? " implements Node & Tall" : shared === node ? " implements Node" : "";
    const narrowed = shared.map((field) => narrower(field, random));
    return described(`type ${name}${ifaces} { ${[...narrowed, ...own].join(" ")} }`);
  });
  const someOf = (names: readonly string[]): string[] => {
    const chosen = names.filter(() => random.chance(0.6));
    return chosen.length > 0 ? chosen : [random.pick(names)];
  };
  return [
    "scalar Stamp",
    "scalar Loose",
    described('enum Mood { CALM "*/ wild" WILD OLD @deprecated type }'),
    `interface Node { ${node.join(" ")} }`,
    `interface Tall implements Node { ${tall.join(" ")} }`,
    ...types,
    `union Plant = ${someOf(objects).join(" | ")}`,
    `union Wet = ${someOf(["Reed", "Moss", "Fern"]).join(" | ")}`,
    `input Want { text: String need: Int! tone: Mood! = WILD mood: Mood = CALM more: [Want!] then: Want at: Stamp }`,
    "input Choose @oneOf { id: ID name: String want: Want }",
    `type Query { ${fields("q", 6, composites).join(" ")} ${fields("l", 2, leaves).join(" ")} }`,
    `type Mutation { ${fields("m", 2, composites).join(" ")} }`,
  ].join("\n");
}

/** The same field with a type that an implementation may have instead. */
function narrower(field: string, random: Randomness): string {
  return !field.includes("@") && !field.endsWith("!") && random.chance(0.3)
    ? random.hit("field narrower than its interface's", `${field}!`)
    : field;
}
