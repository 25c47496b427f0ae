/** The meaning of a problem code and the fix. `docs/problems.md` is generated from this table. */
export interface ProblemMeaning {
  readonly title: string;
  readonly why: string;
  readonly fix: string;
}

const meanings = {
  "init.there": {
    title: "A configuration already exists",
    why: "Existing files are not overwritten.",
    fix: "Edit the file, or delete it and run `rhema init` again.",
  },
  "init.nothing": {
    title: "No contract was found",
    why: "An SDK is generated from a contract.",
    fix: "Use --from with a file, folder or URL, or --run with a command that prints the contract.",
  },
  "init.ended": {
    title: "The questions of `rhema init` were cancelled",
    why: "Nothing was written.",
    fix: "Run the command again, or set everything with options.",
  },
  "init.language": {
    title: "The project uses a language that has no SDK yet",
    why: "The project cannot use the SDK.",
    fix: "To generate an SDK in a supported language anyway, use --from with a contract.",
  },
  "config.missing": {
    title: "There is no configuration file",
    why: "Rhema reads what to do from rhema.yaml, rhema.yml or rhema.json.",
    fix: "Create rhema.yaml in this folder, or use --config FILE.",
  },
  "config.unreadable": {
    title: "The configuration is not valid YAML or JSON",
    why: "Rhema cannot do anything without it.",
    fix: "Fix the syntax at the location shown.",
  },
  "config.invalid": {
    title: "The configuration contains an unknown key or an invalid value",
    why: "An unknown key would silently have no effect.",
    fix: "Use the key or value that the message suggests. docs/configuration.md lists all of them.",
  },
  "config.variable": {
    title: "The configuration uses an environment variable that is not set",
    why: "The value would be empty, and the error would show much later.",
    fix: "Set the variable, or remove the reference.",
  },
  "config.secret": {
    title: "The configuration seems to contain a secret",
    why: "rhema.yaml is committed, so everyone who can read the repository can read the secret.",
    fix: "Write ${NAME}, and set NAME in the environment.",
  },
  "config.ineffective": {
    title: "A configuration key has no effect",
    why: "The key does not apply to this contract or SDK.",
    fix: "Remove the key, or change what it applies to.",
  },
  "path.outside": {
    title: "A path is outside the project folder",
    why: "Rhema writes only inside the folder of the configuration.",
    fix: "Choose a folder inside the project.",
  },
  "contract.missing": {
    title: "A contract file does not exist",
    why: "There is nothing to generate from.",
    fix: "Correct the path under `contracts`, or add the file.",
  },
  "contract.fetch": {
    title: "A contract cannot be fetched from its URL or command",
    why: "There is no copy yet, or the copy stays unchanged.",
    fix: "Follow the hint. If there is a copy, Rhema works offline with it.",
  },
  "contract.pages": {
    title: "Some calls seem to page",
    why: "Each of these calls gets a function that returns all items of all pages.",
    fix: "Nothing, if this is right. Otherwise describe the paging under `pages`, or set it to `off`.",
  },
  "contract.integers": {
    title: "64-bit integers become `number`",
    why: "A number holds 53 bits. Longer integers silently lose their last digits.",
    fix: "Set `int64: bigint` or `int64: text` in the SDK's settings. Set `int64: number` if no value is that long.",
  },
  "contract.names": {
    title: "Some names were changed to keep them apart",
    why: "Two names differ only in case or punctuation, or a name is already used.",
    fix: "Rename the query, or ask the contract's authors for another operationId or schema name.",
  },
  "contract.standing": {
    title: "At least half of the operations have the same parameter",
    why: "You have to pass it to every call, although its value is mostly the same.",
    fix: "Name it under `standing`. You then set it on the connection, and a call can still override it.",
  },
  "contract.several": {
    title: "Several OpenAPI documents were found for one contract",
    why: "Each document is a contract with its own folder in the SDK.",
    fix: "Give each document its own name under `contracts`.",
  },
  "contract.empty": {
    title: "A contract file is empty",
    why: "This usually means a failed download or an unfinished save.",
    fix: "Download or save the contract again.",
  },
  "contract.syntax": {
    title: "A contract is not valid YAML, JSON or GraphQL schema language",
    why: "Rhema cannot read anything in it.",
    fix: "Fix the syntax at the location shown.",
  },
  "contract.kind": {
    title: "A file is neither an OpenAPI document nor a GraphQL schema",
    why: "Rhema reads OpenAPI 2.0 and 3 (YAML or JSON) and GraphQL schema language.",
    fix: "Set `from` to the OpenAPI document or schema itself.",
  },
  "contract.version": {
    title: "The OpenAPI version is not supported",
    why: "The meaning of keywords differs between versions.",
    fix: "Ask the contract's authors for OpenAPI 2.0, 3.0, 3.1 or 3.2.",
  },
  "contract.invalid": {
    title: "A part of the contract is not valid",
    why: "Everything that depends on it is skipped: it is not in the SDK.",
    fix: "Report the location to the contract's authors. The rest of the SDK is complete.",
  },
  "contract.irregular": {
    title: "A part of the contract breaks a rule without consequences",
    why: "Its meaning is clear anyway, and nothing is skipped.",
    fix: "Nothing. Tell the contract's authors if you can.",
  },
  "contract.reference": {
    title: "A reference does not resolve",
    why: "Everything that depends on it is skipped: it is not in the SDK.",
    fix: "Correct the reference, or add its target.",
  },
  "contract.cycle": {
    title: "A definition refers only to itself",
    why: "A type that is only an alias of itself, or merges itself, has no content.",
    fix: "Break the cycle: one of the definitions needs content of its own.",
  },
  "contract.conflict": {
    title: "Two parts of a merged schema contradict each other",
    why: "No value can satisfy both. Rhema uses the narrower one, or the first.",
    fix: "Make the parts agree.",
  },
  "contract.wider": {
    title: "A schema has rules that a type cannot express",
    why: "The type allows values that the contract forbids. The server refuses them.",
    fix: "Nothing. Follow the rule when you set the value.",
  },
  "graphql.schema": {
    title: "The GraphQL schema is not valid",
    why: "Rhema cannot check query documents against a schema that contradicts itself.",
    fix: "Fix the schema at the location shown.",
  },
  "query.syntax": {
    title: "A query document is not valid GraphQL",
    why: "Rhema cannot check or type anything in it.",
    fix: "Fix the syntax at the location shown.",
  },
  "query.invalid": {
    title: "A query document does not match the schema",
    why: "The server would refuse it. The SDK is not written until it is fixed.",
    fix: "Follow the hint, or use --partial to leave the document out.",
  },
  "query.anonymous": {
    title: "An operation has no name",
    why: "Its types and its call are named after it.",
    fix: "Give it the suggested name, or one of your own.",
  },
  "query.duplicate": {
    title: "Two operations or fragments have the same name",
    why: "Each name is one export of the SDK.",
    fix: "Rename one of them.",
  },
  "query.unused": {
    title: "A fragment is not used",
    why: "It is checked, but never sent.",
    fix: "Spread it in an operation, or delete it.",
  },
  "query.host": {
    title: "A source file with queries cannot be read",
    why: "Rhema cannot check or type the queries in it.",
    fix: "Fix the syntax at the location shown, or exclude the file from the pattern under `queries`.",
  },
  "query.tag": {
    title: "A tag that marks queries is not imported",
    why: "At run time the tag does not exist, or is another function.",
    fix: "Import the tag, or mark the text with a comment instead.",
  },
  "query.interpolated": {
    title: "A query contains an interpolation",
    why: "The text is known only at run time, so Rhema cannot check or type it.",
    fix: "Use a variable for a value. Spread a fragment by its name, and interpolate it after the last brace.",
  },
  "query.cycle": {
    title: "Fragments spread each other in a cycle",
    why: "The response would be endless, so servers refuse it.",
    fix: "Remove one of the spreads.",
  },
  "query.large": {
    title: "A query selects too many fields",
    why: "Fragments that are spread below several fields multiply, and nobody can use that many types.",
    fix: "Spread fewer fragments below several fields, or split the query.",
  },
  "query.incremental": {
    title: "A query uses @defer or @stream",
    why: "Rhema does not support responses in parts.",
    fix: "Remove the directive, and request the late part with its own query.",
  },
  "query.deprecated": {
    title: "A query uses something deprecated",
    why: "It works now, but will be removed.",
    fix: "Use what the schema suggests instead.",
  },
  "query.vanished": {
    title: "Your source imports something that is no longer generated",
    why: "The app does not compile. The query behind it was removed or renamed.",
    fix: "Restore the query, or remove the import.",
  },
  "query.none": {
    title: "A pattern for query documents matches no file",
    why: "This is normal in a new project. Otherwise the path may be misspelt.",
    fix: "Check the pattern under `queries`.",
  },
  "sdk.unknown": {
    title: "The command names an SDK or contract that is not configured",
    why: "There is nothing to do.",
    fix: "Use one of the configured names.",
  },
  "proof.failed": {
    title: "The command that checks the app fails on a copy of it",
    why: "Rhema cannot find compile errors then.",
    fix: "Run the command in the app's folder and fix what it needs, or set another one with `proof`.",
  },
  "explain.unknown": {
    title: "The code does not exist",
    why: "There is nothing to explain.",
    fix: "Use one of the codes that the message suggests. `rhema explain` lists all codes.",
  },
  "outline.unknown": {
    title: "The contract contains nothing with this name",
    why: "There is nothing to show.",
    fix: "Use one of the names that the message suggests, or search with --find.",
  },
  "draft.rest": {
    title: "Query documents can be drafted only for GraphQL schemas",
    why: "A REST contract lists its operations, and each becomes a call.",
    fix: "Name a contract that is a GraphQL schema.",
  },
  "draft.field": {
    title: "The name is not a root field",
    why: "Query documents start at a field of Query, Mutation or Subscription.",
    fix: "Use one of the names that the message suggests.",
  },
  "try.unknown": {
    title: "There is no call with this name",
    why: "There is nothing to run.",
    fix: "Use one of the names that the message suggests. `rhema outline` lists all calls.",
  },
  "try.argument": {
    title: "An argument does not match the call",
    why: "The server would refuse or ignore it.",
    fix: "Write name=value as the message shows. body.field=value sets a field of the body.",
  },
  "try.missing": {
    title: "A required argument is missing",
    why: "Rhema sends a real server only the values you give. The stand-in server gets sample values.",
    fix: "Add the arguments that the message lists.",
  },
  "try.unsafe": {
    title: "The call changes something on a real server",
    why: "The change cannot be undone.",
    fix: "Use --yes to allow it. Omit --base-url to use the stand-in server.",
  },
  "observe.nothing": {
    title: "There is nothing to observe",
    why: "You named neither a backend nor recorded traffic.",
    fix: "Give the URL of the backend, or recordings with --har.",
  },
  "observe.address": {
    title: "The backend URL is not valid",
    why: "Rhema cannot pass requests on.",
    fix: "Write it with its scheme: http://host:port.",
  },
  "observe.recording": {
    title: "Recorded traffic cannot be read",
    why: "There is nothing to check.",
    fix: "Record the traffic as HAR, with contents, and name the file.",
  },
  "option.value": {
    title: "An option has an invalid value",
    why: "An invalid value would silently have no effect.",
    fix: "Use a value that the message suggests.",
  },
  "revision.unknown": {
    title: "A revision to compare with does not exist",
    why: "There is nothing to compare with.",
    fix: "Correct the name, or fetch the history that contains it.",
  },
  "revision.empty": {
    title: "A revision does not contain the contract",
    why: "Neither its pin nor its file was committed there.",
    fix: "Name a revision after the contract was added, and commit the folder .rhema.",
  },
  "shares.invalid": {
    title: "The shares of users are not valid",
    why: "Rhema uses them to count how many users a change breaks.",
    fix: "Use a CSV with the columns `release` and `share`. Shares are fractions with a sum of at most 1.",
  },
  "guard.outlived": {
    title: "An accepted change has expired",
    why: "It counts again as if it were not accepted.",
    fix: "Fix what it breaks, or accept it again until a later date.",
  },
  "guard.broken": {
    title: "A contract breaks something you use since the guarded revision",
    why: "The app was written for the old contract. Regenerating the SDK does not fix it.",
    fix: "Fix the locations. For released apps, the change counts until nobody uses those apps: accept it until a date with `guard.accepted`, or move the guard.",
  },
  "gate.held": {
    title: "The contract changed more than the gate allows",
    why: "The SDK stays unchanged, so nothing breaks unnoticed.",
    fix: "Run `rhema impact`. Use --gate off if you want the change.",
  },
  "output.foreign": {
    title: "The output folder contains files that Rhema did not write",
    why: "Rhema does not replace your files.",
    fix: "Set `into` to an empty folder, or use --force to write next to your files.",
  },
  "output.edited": {
    title: "A generated file was edited",
    why: "Rhema would overwrite the edit, so it does not write the SDK.",
    fix: "Move the edit out of the SDK, or use --force to replace the file.",
  },
  "output.unwritable": {
    title: "The output folder is not writable",
    why: "The SDK stays unchanged.",
    fix: "Check the permissions of the folder shown.",
  },
  "output.stale": {
    title: "The committed SDK is out of date",
    why: "The app is compiled against another contract than the one in the repository.",
    fix: "Run `rhema generate` and commit the result.",
  },
  "state.unreadable": {
    title: "A file under .rhema cannot be read",
    why: "Rhema does not know which files it generated.",
    fix: "Restore the file from version control.",
  },
  "play.override": {
    title: "An override for the stand-in server is not valid",
    why: "An unknown override would silently have no effect.",
    fix: "Write `operation: status=409, delay=800, items=0, example=name`, or a part of it.",
  },
  "play.port": {
    title: "The stand-in server cannot listen",
    why: "Another program uses the port, or it is not allowed.",
    fix: "Choose another port with --port.",
  },
} as const satisfies Record<string, ProblemMeaning>;

export type ProblemCode = keyof typeof meanings;

/** All problem codes with their meanings, in the order of the documentation. */
export const problemMeanings: Readonly<Record<ProblemCode, ProblemMeaning>> = meanings;

/** Returns whether a text is a problem code. */
export function isProblemCode(code: string): code is ProblemCode {
  return Object.hasOwn(meanings, code);
}
