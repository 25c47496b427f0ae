/** What each problem code means and how to mend it. `docs/problems.md` is printed from this table. */
export interface ProblemMeaning {
  readonly title: string;
  readonly why: string;
  readonly fix: string;
}

const meanings = {
  "init.there": {
    title: "There is a configuration already",
    why: "What somebody wrote is never overwritten.",
    fix: "Edit it; or delete it, and run `rhema init` again.",
  },
  "init.nothing": {
    title: "There is no contract to begin with",
    why: "An SDK is made from a contract, and none was found or named.",
    fix: "Name a file, a folder or a URL with --from, or a command that prints it with --run.",
  },
  "init.ended": {
    title: "The questions of `rhema init` were ended",
    why: "Nothing was written.",
    fix: "Run it again, or give the answers as options.",
  },
  "init.language": {
    title: "The project is written in a language that has no SDK yet",
    why: "The SDK would be of no use to it.",
    fix: "Name a contract with --from if an SDK in a language that there is is wanted all the same.",
  },
  "config.missing": {
    title: "There is no configuration file",
    why: "Rhema reads what to do from rhema.yaml (or rhema.yml, rhema.json).",
    fix: "Create rhema.yaml in this folder, or name another file with --config FILE.",
  },
  "config.unreadable": {
    title: "The configuration is not valid YAML or JSON",
    why: "Nothing can be done without it.",
    fix: "Mend the syntax at the place shown.",
  },
  "config.invalid": {
    title: "The configuration holds something unknown or of the wrong kind",
    why: "A key that is not understood would silently do nothing.",
    fix: "Use the key or value the message proposes; docs/configuration.md lists them all.",
  },
  "config.variable": {
    title: "An environment variable that the configuration names is not set",
    why: "The value would be empty, which hides the mistake until much later.",
    fix: "Set the variable, or take the reference out.",
  },
  "config.secret": {
    title: "The configuration seems to hold a secret in clear",
    why: "rhema.yaml is committed; whoever reads the repository would read the secret.",
    fix: "Write ${NAME} and set NAME in the environment.",
  },
  "config.ineffective": {
    title: "A key of the configuration has no effect",
    why: "It belongs to something that the contract or SDK is not.",
    fix: "Take the key out, or correct what it belongs to.",
  },
  "path.outside": {
    title: "A path leaves the project folder",
    why: "Rhema writes only inside the folder that holds the configuration.",
    fix: "Choose a folder below the configuration file.",
  },
  "contract.missing": {
    title: "A contract file does not exist",
    why: "There is nothing to generate from.",
    fix: "Correct the path under contracts, or put the file there.",
  },
  "contract.fetch": {
    title: "A contract cannot be had from its URL or command",
    why: "There is no copy of it yet, or the copy stays as it was.",
    fix: "Do as the message proposes; work goes on offline with the copy.",
  },
  "contract.pages": {
    title: "Calls seem to answer page by page",
    why: "Each of them has got a function that goes through all items of all pages.",
    fix: "Nothing, if it is so. Else say how they do it under pages, or `off`.",
  },
  "contract.integers": {
    title: "Integers of 64 bits become `number`",
    why: "A number holds 53 bits; of a longer integer the last digits are lost without a word.",
    fix: "Say `int64: bigint` or `int64: text` in the settings of the SDK; `int64: number` says that none is so long.",
  },
  "contract.names": {
    title: "Names that several want are made apart",
    why: "Two names differ in case or punctuation alone, or something else has the name already.",
    fix: "Rename the query, or ask the contract's authors for another operationId or schema name.",
  },
  "contract.standing": {
    title: "At least half of the operations take the same parameter",
    why: "It has to be given in every call, though it is the same in most.",
    fix: "Name it under standing; the connection then supplies it once, and a call may still give another value.",
  },
  "contract.several": {
    title: "Several descriptions stand where one contract should be",
    why: "Each description is a contract of its own, with its own folder in the SDK.",
    fix: "Give each a name under contracts.",
  },
  "contract.empty": {
    title: "A contract file is empty",
    why: "An empty file is usually a failed download or an unfinished save.",
    fix: "Fetch or save the contract again.",
  },
  "contract.syntax": {
    title: "A contract is not valid YAML, JSON or GraphQL schema language",
    why: "Nothing in it can be read.",
    fix: "Mend the syntax at the place shown.",
  },
  "contract.kind": {
    title: "A file is neither an OpenAPI description nor a GraphQL schema",
    why: "Rhema reads OpenAPI 2.0 and 3 (YAML or JSON) and GraphQL schema language.",
    fix: "Point the contract at the description itself.",
  },
  "contract.version": {
    title: "The OpenAPI version is not supported",
    why: "The meaning of the keywords differs between versions.",
    fix: "Ask the contract's authors for OpenAPI 2.0, 3.0, 3.1 or 3.2.",
  },
  "contract.invalid": {
    title: "A part of the contract breaks the rules of its format",
    why: "What depends on it is set aside: it is left out of the SDK.",
    fix: "Report the place to the contract's authors; the rest of the SDK is complete.",
  },
  "contract.irregular": {
    title: "A part of the contract breaks a rule of its format, at no cost",
    why: "Its meaning is plain all the same, and nothing is left out.",
    fix: "Nothing on your side; tell the contract's authors when you can.",
  },
  "contract.reference": {
    title: "A reference leads nowhere",
    why: "What depends on it is set aside: it is left out of the SDK.",
    fix: "Correct the reference, or add what it names.",
  },
  "contract.cycle": {
    title: "A definition is made of itself",
    why: "A type that is only an alias of itself, or merges itself, has no shape.",
    fix: "Break the cycle: one of the definitions has to say something of its own.",
  },
  "contract.conflict": {
    title: "Two parts of a merged schema disagree",
    why: "No value can satisfy both; the narrower one, or the first, is used.",
    fix: "Make the parts agree.",
  },
  "contract.wider": {
    title: "A schema says more than a type can",
    why: "The type allows values that the contract forbids; the server refuses them.",
    fix: "Nothing; mind the rule when you fill the value.",
  },
  "graphql.schema": {
    title: "The GraphQL schema is not valid",
    why: "Query documents cannot be checked against a schema that contradicts itself.",
    fix: "Mend the schema at the place shown.",
  },
  "query.syntax": {
    title: "A query document is not valid GraphQL",
    why: "Nothing in it can be checked or typed.",
    fix: "Mend the syntax at the place shown.",
  },
  "query.invalid": {
    title: "A query document does not fit the schema",
    why: "The server would refuse it; its SDK is held back until it is mended.",
    fix: "Do as the message proposes, or generate with --partial to leave the document out.",
  },
  "query.anonymous": {
    title: "An operation has no name",
    why: "Its types and its call are named after it.",
    fix: "Give it the proposed name, or one of your own.",
  },
  "query.duplicate": {
    title: "Two operations or fragments share a name",
    why: "Each name becomes one export of the SDK.",
    fix: "Rename one of the two places shown.",
  },
  "query.unused": {
    title: "A fragment is never used",
    why: "It is checked but never sent.",
    fix: "Spread it in an operation, or delete it.",
  },
  "query.host": {
    title: "A source file with queries in it cannot be read",
    why: "The queries in it can be neither checked nor typed.",
    fix: "Mend the syntax at the place shown, or take the file out of the pattern under queries.",
  },
  "query.tag": {
    title: "A tag marks queries and is never imported",
    why: "When the app runs, the tag is not there, or it is another function than it looks.",
    fix: "Import the tag, or mark the text with a comment instead.",
  },
  "query.interpolated": {
    title: "An interpolation stands inside a query",
    why: "What is sent would only be known when the app runs; it can be neither checked nor typed.",
    fix: "Use a variable for a value; spread a fragment by its name and interpolate it after the last brace.",
  },
  "query.cycle": {
    title: "Fragments spread each other in a circle",
    why: "The answer would be endless; servers refuse it.",
    fix: "Take one of the spreads out.",
  },
  "query.large": {
    title: "A query selects too many fields",
    why: "Fragments that are spread below several fields multiply; the types of so many fields help nobody.",
    fix: "Spread fewer fragments below several fields, or split the query.",
  },
  "query.incremental": {
    title: "A query asks for its answer in pieces (@defer or @stream)",
    why: "Answers that come in pieces are not read yet, and their types would promise what is not there.",
    fix: "Take the directive out; ask for the late part in a query of its own.",
  },
  "query.deprecated": {
    title: "A query uses what the schema calls deprecated",
    why: "It works now, and will be gone one day.",
    fix: "Use what the schema proposes instead.",
  },
  "query.vanished": {
    title: "Something that is no longer generated is still imported",
    why: "The app will not compile; the query it was made from is gone, or has another name.",
    fix: "Bring the query back, or take the import out.",
  },
  "query.none": {
    title: "A pattern for query documents matches no file",
    why: "That is fine in a new project, and a misspelt path in an old one.",
    fix: "Check the pattern under queries.",
  },
  "sdk.unknown": {
    title: "The command names an SDK or contract the configuration does not have",
    why: "There is nothing to work on.",
    fix: "Use one of the configured names.",
  },
  "proof.failed": {
    title: "What checks the app cannot be run on a copy of it",
    why: "Nothing is known of compile errors then, and silence would look as if there were none.",
    fix: "Run the command in the app's folder and see to what it needs, or name another one with `proof` of the SDK.",
  },
  "explain.unknown": {
    title: "There is no such code",
    why: "There is nothing to explain.",
    fix: "Use one of the codes that the message proposes; `rhema explain` lists them all.",
  },
  "outline.unknown": {
    title: "Nothing in the contract has the name that is asked about",
    why: "There is nothing to show.",
    fix: "Use one of the names that the message proposes, or search with --find.",
  },
  "draft.rest": {
    title: "Query documents are drafted for GraphQL schemas only",
    why: "A REST contract says itself which operations there are; each becomes a call.",
    fix: "Name a contract that is a GraphQL schema.",
  },
  "draft.field": {
    title: "A document is wanted for something that is no field of a root",
    why: "Query documents begin at a field of Query, Mutation or Subscription.",
    fix: "Use one of the names that the message proposes.",
  },
  "try.unknown": {
    title: "There is no call of that name",
    why: "There is nothing to perform.",
    fix: "Use one of the names that the message proposes; `rhema outline` lists them.",
  },
  "try.argument": {
    title: "An argument does not fit the call",
    why: "The server would refuse it, or never see it.",
    fix: "Write name=value as the message says; body.field=value leads into a body.",
  },
  "try.missing": {
    title: "A required argument is missing",
    why: "A real server is only ever sent what somebody wrote; the stand-in takes samples.",
    fix: "Add the arguments that the message lists.",
  },
  "try.unsafe": {
    title: "The call changes something on a real server",
    why: "That cannot be taken back.",
    fix: "Say --yes when it is meant; leave --base-url out to try it on the stand-in.",
  },
  "observe.nothing": {
    title: "There is nothing to observe",
    why: "Neither a backend nor recorded traffic was named.",
    fix: "Name the backend's URL, or recordings with --har.",
  },
  "observe.address": {
    title: "The backend's address is none",
    why: "Requests could not be passed on.",
    fix: "Write it with its scheme, as http://host:port.",
  },
  "observe.recording": {
    title: "Recorded traffic cannot be read",
    why: "There is nothing to judge.",
    fix: "Record the traffic as HAR, with contents, and name the file.",
  },
  "option.value": {
    title: "An option of a command has a value it does not take",
    why: "A value that is not understood would silently do nothing.",
    fix: "Use a value that the message proposes.",
  },
  "revision.unknown": {
    title: "A revision that changes are to be judged against is not there",
    why: "There is nothing to compare with.",
    fix: "Correct the name, or fetch the history that holds it.",
  },
  "revision.empty": {
    title: "A revision holds nothing of a contract",
    why: "Neither its pin nor its file was committed there.",
    fix: "Name a revision after the contract was adopted, and commit the folder .rhema.",
  },
  "shares.invalid": {
    title: "The shares of users cannot be used",
    why: "How many users a change breaks is counted from them.",
    fix: "Give a CSV with the columns `release` and `share`; shares are fractions that come to 1 at most.",
  },
  "guard.outlived": {
    title: "An accepted change has outlived the day until which it was accepted",
    why: "It counts again as if nobody had accepted it.",
    fix: "Mend what it breaks, or accept it anew with a later day.",
  },
  "guard.broken": {
    title: "A contract breaks something in use since the guarded revision",
    why: "The app was made for the contract as it was; regenerating alone does not mend it.",
    fix: "Mend the places: what source still breaks on counts, whether it was generated over or not. For released apps it counts until they are gone: accept it until a day with `guard.accepted`, or move the guard.",
  },
  "gate.held": {
    title: "The contract changed more than the gate lets through",
    why: "The SDK stays as it was, so that nothing breaks unawares.",
    fix: "Look at `rhema impact`; go on with --gate off when the change is wanted.",
  },
  "output.foreign": {
    title: "The output folder holds files Rhema did not write",
    why: "Nothing of yours is ever replaced.",
    fix: "Choose an empty folder for `into`, or use --force to write beside them.",
  },
  "output.edited": {
    title: "A generated file was edited by hand",
    why: "Generating again would lose the edit, so the whole SDK is held back.",
    fix: "Move the edit out of the SDK, or use --force to replace the file.",
  },
  "output.unwritable": {
    title: "The output folder cannot be written",
    why: "The SDK stays as it was.",
    fix: "Check the permissions of the folder shown.",
  },
  "output.stale": {
    title: "The committed SDK is not what its inputs give",
    why: "The app is compiled against another contract than the one in the repository.",
    fix: "Run `rhema generate` and commit the result.",
  },
  "state.unreadable": {
    title: "The ledger or a pin under .rhema cannot be read",
    why: "Rhema no longer knows which files it wrote.",
    fix: "Restore the file from version control.",
  },
  "play.override": {
    title: "An override for the stand-in server is not valid",
    why: "An override that Rhema does not understand would silently do nothing.",
    fix: "Write `operation: status=409, delay=800, items=0, example=name`, or some of it.",
  },
  "play.port": {
    title: "The stand-in server cannot listen",
    why: "Another program holds the port, or it may not be used.",
    fix: "Choose another with --port.",
  },
} as const satisfies Record<string, ProblemMeaning>;

export type ProblemCode = keyof typeof meanings;

/** Every problem code with its meaning, in the order the docs show them. */
export const problemMeanings: Readonly<Record<ProblemCode, ProblemMeaning>> = meanings;

export function isProblemCode(code: string): code is ProblemCode {
  return Object.hasOwn(meanings, code);
}
