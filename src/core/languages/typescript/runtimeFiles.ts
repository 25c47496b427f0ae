import type { Feature } from "../../sdk/lower/features.js";
import { sortedBy } from "../../text/sortedBy.js";
import { header, moduleText } from "./moduleText.js";

const always = [
  "auth.ts",
  "authorized.ts",
  "bodies.ts",
  "connection.ts",
  "excerpt.ts",
  "exchange.ts",
  "failure.ts",
  "layers.ts",
  "redirects.ts",
];

/** The files of the runtime that each feature needs, beside those that every SDK has. */
const filesByFeature: Readonly<Record<Feature, readonly string[]>> = {
  rest: ["parameters.ts", "problem.ts", "send.ts"],
  graphql: ["events.ts", "graphql.ts", "pause.ts", "predicted.ts", "sealed.ts", "subscribe.ts"],
  "rarer parameters": ["rarerParameters.ts"],
  forms: ["forms.ts"],
  progress: ["progress.ts"],
  pages: ["pages.ts"],
  streams: ["streams.ts", "events.ts", "pause.ts"],
  "response headers": ["headers.ts"],
  cookies: ["cookies.ts"],
  servers: ["servers.ts"],
  conversions: ["conversions.ts"],
  "exact integers": ["integers.ts"],
  checks: ["checks.ts"],
  outcomes: ["outcome.ts"],
  fakes: ["fakes.ts"],
  "described calls": ["described.ts", "packed.ts"],
  "described pages": ["describedPages.ts"],
  sockets: ["websocket.ts"],
  "file uploads": ["uploads.ts"],
  "newer types": ["newerType.ts"],
  webhooks: [],
};

/** The runtime's files that an SDK with some features holds, sorted. */
export function runtimeFiles(features: ReadonlySet<Feature>): string[] {
  const wanted = new Set([...always, ...[...features].flatMap((feature) => filesByFeature[feature])]);
  return sortedBy(wanted, (file) => file);
}

/**
 * The runtime's files as an SDK holds them, by their path inside its folder.
 *
 * @param sources by file name
 * @param ending of relative imports
 */
export function printRuntime(sources: ReadonlyMap<string, string>, ending: "" | ".js"): Map<string, string> {
  const files = new Map<string, string>();
  for (const [file, source] of sources) {
    const text = source.replace(/\r\n/g, "\n");
    files.set(`wire/${file}`, ending === ".js" ? text : text.replace(/(from "\.[^"]*)\.js"/g, '$1"'));
  }
  const lines = sortedBy(sources.keys(), (file) => file).map(
    (file) => `export * from "./${file.replace(/\.ts$/, "")}${ending}";`,
  );
  return files.set("wire/index.ts", moduleText(header, [], [lines.join("\n")]));
}
