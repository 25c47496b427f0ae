import type { Feature } from "../../sdk/lower/features.js";
import { sortedBy } from "../../text/sortedBy.js";

const always = [
  "Addresses.swift",
  "Auth.swift",
  "Bodies.swift",
  "Box.swift",
  "Connection.swift",
  "Exchange.swift",
  "Failures.swift",
  "Fields.swift",
  "Guarded.swift",
  "Headers.swift",
  "JSON.swift",
  "JSONParser.swift",
  "JSONText.swift",
  "Layers.swift",
  "Mismatch.swift",
  "Number.swift",
  "Parameters.swift",
  "Problem.swift",
  "Reading.swift",
  "Redirects.swift",
  "Renewal.swift",
  "Send.swift",
  "Sent.swift",
  "Servers.swift",
  "StreamBody.swift",
  "Streams.swift",
  "Events.swift",
  "Telling.swift",
  "Transport.swift",
  "Wire.swift",
  "Writing.swift",
];

/** The files of the runtime for each feature, besides those of every SDK. */
const filesByFeature: Readonly<Record<Feature, readonly string[]>> = {
  rest: [],
  graphql: ["Files.swift", "FormBodies.swift", "GraphQL.swift", "RarerParameters.swift", "Subscribe.swift"],
  "rarer parameters": ["RarerParameters.swift"],
  forms: ["Files.swift", "FormBodies.swift"],
  progress: [],
  pages: ["Pages.swift", "HeaderValues.swift"],
  streams: [],
  "response headers": ["HeaderValues.swift"],
  cookies: ["Cookies.swift"],
  servers: [],
  conversions: ["Instants.swift"],
  "exact integers": [],
  checks: ["Checks.swift"],
  outcomes: ["Outcomes.swift"],
  fakes: ["Fakes.swift"],
  sockets: ["WebSockets.swift"],
  "file uploads": [],
  "newer types": [],
  "described calls": [],
  "described pages": [],
  webhooks: ["Webhooks.swift"],
};

/** Returns the runtime's files for an SDK with some features, sorted. */
export function runtimeFiles(features: ReadonlySet<Feature>): string[] {
  const ofBoth = features.has("graphql")
    ? [
        ...(features.has("outcomes") ? ["GraphQLOutcomes.swift"] : []),
        ...(features.has("fakes") ? ["GraphQLFakes.swift"] : []),
      ]
    : [];
  return sortedBy(
    new Set([...always, ...ofBoth, ...[...features].flatMap((feature) => filesByFeature[feature])]),
    (file) => file,
  );
}
