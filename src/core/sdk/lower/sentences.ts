/** What is said about the parts of an SDK in every language. The names are what the language calls them. */
export const sentences = {
  arguments: (call: string) => `What \`${call}\` takes.`,
  answersByType: (call: string) => `What \`${call}\` answers, by the \`answerType\` it is asked for.`,
  graphqlFailure: (call: string) =>
    `How \`${call}\` can fail; with status "errors" it carries what could be answered all the same.`,
  headers: (call: string) => `Headers of \`${call}\`, of its answers and failures alike.`,
  allPages: (call: string) => `All items of all pages of \`${call}\`.`,
  cached: (title: string) =>
    `All calls of ${title}, each described by a key and a function, for what keeps answers for screens.`,
  fragments: (title: string) => `The fragments of ${title}, by name, as who unseals them sees them.`,
  sealedAs:
    "A value that some fragments are sealed in, whichever answer it stands in: what a component takes that shows it.",
  queries: (title: string) =>
    `Marks queries of ${title} that stand beside components. Nothing is left of it in a bundle.`,
  cachedKey:
    "The beginning that keys have in common: of the whole contract, of a connection, or of one of its calls. For what has to\nbe asked for again.",
  cachedPages: (call: string) => `All pages of \`${call}\`, one after the other.`,
  operation: (root: string) => `The ${root} as it is sent, with the types of its variables and answer.`,
  reply: (request: string) => `What the server expects back for \`${request}\`.`,
  webhookQuery: "Parameters of its query, as text on the wire.",
  webhookHeaders: "Headers it carries, as text on the wire.",
  mayBeMissing: "It may be missing.",
  otherKeys: "Any other key.",
  tuple: "Items that are known by their place.",
  manyProperties: "It has more properties than a constructor takes, so they are set one by one.",
  otherFailure: "What can happen to any call.",
  failureBody: "As the contract says; null where the server sent something else, which `answer` has as text.",
  bodiesByType: (call: string) => `What \`${call}\` takes as its body, by the media type that it is sent in.`,
  bearer: "The bearer token; every call uses it.",
  graphqlFailures: (call: string) => `How \`${call}\` can fail.`,
  resultErrors: "An answer with errors.",
  partialData: "What could be answered all the same.",
  fragment: (name: string) => `What the fragment \`${name}\` selects. Every answer that spreads it has this type too.`,
  otherMember: "One that this SDK does not know.",
  unlistedChoice: (type: string) =>
    `A \`${type}\` may hold a value that is not listed here: the server can have newer ones.`,
  connection: (title: string) => `Where ${title} is, and how its calls get there.`,
  connectionOptions: (connect: string) => `What \`${connect}\` takes.`,
  connect: "Makes a connection. Nothing is sent until a call is made.",
  endpoint: "The URL of the GraphQL endpoint.",
  credentials: "Credentials by scheme; a call uses the first alternative that is supplied.",
  ownServers:
    "Other addresses for calls that have a server of their own. On another origin than the connection's, such a server gets credentials only when it is named here.",
  standing: "Parameters that many calls share, supplied once.",
  serverVariables: (url: string) => `Parts of the address \`${url}\`.`,
  serverVariable: (fallback: string) => `When absent: ${JSON.stringify(fallback)}.`,
  fakes: (title: string) => `What a fake connection to ${title} answers, by call.`,
  fake: "A connection for tests: it answers by itself, without a server, and keeps what it was asked.\nA call that is given no answer fails.",
  webhookRead: "Reads the body as it came. What is not as the contract says is an `UnreadableWebhook`.",
  fakeFailures: (call: string) => `Lets a faked \`${call}\` fail as the contract says.`,
  sample: (type: string) => `A \`${type}\` with its required fields filled, and what is given laid over them.`,
} as const;
