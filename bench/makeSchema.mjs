// A made-up GraphQL schema of any size, and query documents for it.

const scalars = ["String", "Int", "Float", "Boolean", "ID", "Instant"];

/**
 * Returns schema text: objects that refer to each other, with interfaces, enums, inputs, arguments and descriptions.
 */
export function makeSchema(types) {
  const parts = ["scalar Instant", "interface Node { id: ID! createdAt: Instant }"];
  const roots = [];
  for (let at = 0; at < types; at++) {
    const next = (step) => `Type${(at + step * 7) % types}`;
    if (at % 8 === 6)
      parts.push(
        `"""The states of type ${at}."""\nenum Type${at} { ${["NEW", "OPEN", "HELD", "DONE", "GONE"].map((word) => `STATE_${at}_${word}`).join(" ")} }`,
      );
    else if (at % 8 === 7)
      parts.push(
        `input Type${at} { after: Instant first: Int = ${at} words: [String!] state: Type${at - 1} deeper: Type${at} }`,
      );
    else {
      const fields = Array.from({ length: 8 }, (_, field) => {
        const step = field * 3 + 1;
        const isObject = field > 4 && ((at + step * 7) % types) % 8 < 6;
        const isEnum = field > 4 && ((at + step * 7) % types) % 8 === 6;
        const type = isObject || isEnum ? next(step) : scalars[(at + field) % scalars.length];
        const given = field === 6 ? `(first: Int = 10, words: [String!])` : "";
        return `  """Field ${field} of type ${at}, as the harbour office words it for those who sail."""\n  field${field}${given}: ${field % 3 === 0 ? `${type}!` : field % 3 === 1 ? type : `[${type}!]!`}`;
      });
      parts.push(
        `"""Type ${at} of the made-up harbour, one of many."""\ntype Type${at} implements Node {\n  id: ID!\n  createdAt: Instant\n${fields.join("\n")}\n}`,
      );
      roots.push(`  type${at}(id: ID!): Type${at}`);
    }
  }
  parts.push(`type Query {\n${roots.join("\n")}\n}`);
  return parts.join("\n\n");
}

/** Returns the text of one query document. */
export function makeDocument(at) {
  const type = at * 8;
  return `query Query${at}($id: ID!) {
  type${type}(id: $id) {
    ...Line${at}
    createdAt
    field1
    field3
    node: field0
  }
}

fragment Line${at} on Type${type} {
  id
  field2
  field4
}
`;
}
