/** Findings of random queries, each as a small case. */
export const uglySchema = `
scalar Loose
type Query { dock: Dock find(by: By!): Dock wide(by: Wide!): Int tug: Tug }
union Craft = Tug | Raft
type Tug { pull: Int logs: Int }
type Raft { logs: Int }
type Dock { id: ID! slip: Slip! rope: Loose }
type Slip { rope: Loose depth: Float! }
scalar Upload
input By @oneOf {
  id: ID by: By Limits: Limits limits: [Limits!] string: String String: String number: Int list: [[Int!]] upload: Upload
  anything: Loose jsonElement: Loose unit: Boolean boolean: Boolean deprecated: Int @deprecated writer: ID any: ID
}
input Limits { least: Int }
input Wide @oneOf { ${Array.from({ length: 405 }, (_, at) => `n${String(at)}: ${at === 300 ? "Upload" : "Int"}`).join(" ")} }
`;
/** The queries of it. */
export const uglyQueries = [
  // A value of any type is absent in the response, and null in the fragment.
  `query Rope($deep: Boolean!) { dock { slip @skip(if: $deep) { depth } ...Roped } }
   fragment Roped on Dock { slip @include(if: $deep) { rope } }`,
  // A fragment selects none of the existing fields.
  "query Nothing { dock { ...Hollow } } fragment Hollow on Dock { slip { depth @include(if: false) } }",
  "query Find($by: By!, $limits: Limits!, $id: ID!) { find(by: $by) { id } other: find(by: { Limits: $limits }) { id } third: find(by: { id: $id }) { id } }",
  // A fragment distinguishes types. The response can only have one of them, whose type it selects under a condition.
  `query Pulled($told: Boolean!) { ...Early @skip(if: $told) ...Late }
   fragment Early on Query { tug { ... on Craft { __typename } logs } }
   fragment Late on Query { tug { ...Pulls } }
   fragment Pulls on Craft { ... on Tug { pull } }`,
  "query WideOne($by: Wide!) { wide(by: $by) }",
];
