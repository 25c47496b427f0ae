import type { Feature } from "../../sdk/lower/features.js";
import { sortedBy } from "../../text/sortedBy.js";

const always = [
  "Auth.kt",
  "Blocking.kt",
  "Bodies.kt",
  "Connection.kt",
  "Emulator.kt",
  "Exchange.kt",
  "Failures.kt",
  "Forms.kt",
  "JsonFields.kt",
  "JsonParser.kt",
  "JsonText.kt",
  "Layers.kt",
  "Parameters.kt",
  "Problem.kt",
  "Redirects.kt",
  "Sent.kt",
  "Servers.kt",
];

/** The files of the runtime for each feature, besides those of every SDK. */
const filesByFeature: Readonly<Record<Feature, readonly string[]>> = {
  rest: ["Send.kt"],
  graphql: [
    "Events.kt",
    "FormBodies.kt",
    "Graphql.kt",
    "Outcome.kt",
    "RarerParameters.kt",
    "Send.kt",
    "Streams.kt",
    "Subscribe.kt",
  ],
  "rarer parameters": ["RarerParameters.kt"],
  forms: ["FormBodies.kt"],
  progress: ["Progress.kt"],
  pages: ["Pages.kt", "HeaderValues.kt"],
  streams: ["Events.kt", "Streams.kt"],
  "response headers": ["HeaderValues.kt"],
  cookies: ["Cookies.kt"],
  servers: [],
  conversions: ["Instants.kt"],
  "exact integers": [],
  checks: ["Checks.kt"],
  outcomes: ["Outcome.kt"],
  fakes: ["Fakes.kt"],
  sockets: ["WebSockets.kt"],
  "file uploads": [],
  "newer types": [],
  "described calls": [],
  "described pages": [],
  webhooks: ["Webhooks.kt"],
};

/** Returns the runtime's files for an SDK with some features, sorted. */
export function runtimeFiles(features: ReadonlySet<Feature>): string[] {
  const ofBoth = features.has("fakes") && features.has("graphql") ? ["GraphqlFakes.kt"] : [];
  return sortedBy(
    new Set([...always, ...ofBoth, ...[...features].flatMap((feature) => filesByFeature[feature])]),
    (file) => file,
  );
}
