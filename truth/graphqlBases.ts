/**
 * A made-up schema with features that the demo's lacks: one-of inputs, directives, lists of lists, interfaces of
 * interfaces.
 */
export const regattaSchema = `
directive @lookback(days: Int = 3, zone: String) on FIELD | QUERY
directive @draft on FIELD

scalar Moment
scalar Colour

interface Entity { id: ID! }
interface Craft implements Entity { id: ID! name: String! length: Float owner: Person crew: [Person!]! marks: [[Int!]!] }
type Dinghy implements Craft & Entity { id: ID! name: String! length: Float owner: Person crew: [Person!]! marks: [[Int!]!] sailNumber: Int! colour: Colour class: Class! }
type Cruiser implements Craft & Entity { id: ID! name: String! length: Float owner: Person crew: [Person!]! marks: [[Int!]!] cabins: Int! class: Class! }
type Tender implements Entity { id: ID! name: String! }
type Person implements Entity { id: ID! name: String! born: Moment club: Club nickname: String }
type Club { name: String! burgee: Colour members(first: Int! = 10, sortBy: PersonOrder, named: String): [Person!]! }
type Race { id: ID! title: String! start: Moment! state: RaceState! legs: [Leg!] winner: Craft results(top: Int = 3): [Result!]! notes: [String] distance: Int! }
type Leg { length: Float! heading: Int tide: String }
type Result { craft: Craft! seconds: Float! place: Int rank: ID! }
type Entry { race: Race! craft: Craft! accepted: Boolean! fee: Float }
union Found = Dinghy | Person | Club
union Notice = Race | Entry

enum Class { OPTIMIST LASER KEELBOAT }
enum RaceState { PLANNED RUNNING FINISHED ABANDONED }
enum PersonOrder { NAME AGE }

input RaceFilter { state: [RaceState!] after: Moment class: Class = LASER named: String limits: Limits }
input Limits { shortest: Float longest: Float crew: Int! = 2 }
input EntryInput { raceId: ID! craftId: ID! crewIds: [ID!]! remarks: String class: Class! handicap: Float }
input By @oneOf { id: ID name: String }
input Loose { id: ID name: String }

type Query {
  race(by: By!): Race
  races(filter: RaceFilter, first: Int = 10, ids: [ID]): [Race!]!
  craft(id: ID!): Craft
  crafts(class: Class, lengths: [Float!], limit: Int!): [Craft!]!
  find(text: String!, limit: Int! = 5): [Found!]!
  entity(id: ID!): Entity
  person(by: Loose): Person
  club(name: String): Club
  grid: [[Int]!]
  notices: [Notice!]!
}
type Mutation {
  enter(entry: EntryInput!): Entry!
  withdraw(entryId: ID!, reason: String): Boolean!
  rename(craftId: ID!, name: String!): Craft
}
type Subscription { finished(raceId: ID): Result! }
`;

export const regattaQueries: readonly string[] = [
  "query OneRace($by: By!) { race(by: $by) { id title start state distance legs { length heading } winner { id name } notes } }",
  'query FixedRace { race(by: { id: "r1" }) { title results(top: 2) { place seconds rank craft { name } } } }',
  "query RaceList($filter: RaceFilter, $first: Int = 4, $ids: [ID]) { races(filter: $filter, first: $first, ids: $ids) { id title state } }",
  "query Laser { races(filter: { class: LASER, state: [PLANNED, RUNNING], limits: { shortest: 2 } }) @lookback(days: 2) { title results { seconds } } }",
  "query OneCraft($id: ID!) { craft(id: $id) { __typename id name length ...Hull ... on Cruiser { cabins } owner { name club { name } } } } fragment Hull on Dinghy { sailNumber colour class }",
  "query Crafts($limit: Int!, $lengths: [Float!]) { crafts(class: OPTIMIST, limit: $limit, lengths: $lengths) { id name crew { id name } marks } }",
  "query Find($text: String!) { find(text: $text) { ... on Dinghy { name sailNumber } ... on Person { name nickname born } ... on Club { burgee } } }",
  'query FindMore { find(text: "a", limit: 3) { ... on Entity { id } ... on Club { name } } }',
  "query AnEntity($id: ID!) { entity(id: $id) { id ... on Craft { length } ... on Person { nickname } } }",
  "query Who($by: Loose) { person(by: $by) { ...Named } } fragment Named on Person { id name born }",
  'query TheClub($name: String, $first: Int!) { club(name: $name) { name members(first: $first, sortBy: NAME) { name } all: members { id } some: members(named: "x") { id } } }',
  "query Grid { grid }",
  "query Notices { notices { ... on Race { title state } ... on Entry { accepted fee } } }",
  "mutation Enter($entry: EntryInput!) { enter(entry: $entry) { accepted fee race { id } } }",
  'mutation EnterFixed { enter(entry: { raceId: "r", craftId: "c", crewIds: ["p"], class: KEELBOAT }) { accepted } }',
  'mutation EnterPart($race: ID!, $remarks: String, $fee: Float, $crew: [ID!]!) { enter(entry: { raceId: $race, craftId: "c", crewIds: $crew, remarks: $remarks, class: OPTIMIST, handicap: $fee }) { accepted } }',
  "query RaceParts($state: [RaceState!], $named: String, $shortest: Float) { races(filter: { state: $state, named: $named, limits: { shortest: $shortest, crew: 3 } }) { id } }",
  'query RaceItems($one: RaceState!, $id: ID) { races(filter: { state: [$one, FINISHED], after: null }, ids: [$id, null, "r"]) @lookback(days: 3, zone: null) { id } }',
  "query Looked($days: Int, $zone: String) { races(first: null) @lookback(days: $days, zone: $zone) { id } }",
  "mutation Withdraw($entryId: ID!, $reason: String) { withdraw(entryId: $entryId, reason: $reason) }",
  "mutation Rename($craftId: ID!, $name: String!) { rename(craftId: $craftId, name: $name) { ... on Entity { id } name } }",
  "subscription Finished($raceId: ID) { finished(raceId: $raceId) { seconds craft { name } } }",
];
