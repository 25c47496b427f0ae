import type { Feature } from "../../sdk/lower/features.js";
import { sortedBy } from "../../text/sortedBy.js";
import { header, moduleText } from "./moduleText.js";
import type { TypescriptSettings } from "./settings.js";

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

/** The files of the runtime for each feature, besides those of every SDK. */
const filesByFeature: Readonly<Record<Feature, readonly string[]>> = {
  rest: ["parameters.ts", "problem.ts", "send.ts"],
  graphql: ["edited.ts", "events.ts", "graphql.ts", "pause.ts", "predicted.ts", "sealed.ts", "subscribe.ts"],
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
  "described calls": ["described.ts", "edited.ts", "packed.ts", "sealed.ts"],
  "described pages": ["describedPages.ts"],
  sockets: ["websocket.ts"],
  "file uploads": ["uploads.ts"],
  "newer types": ["newerType.ts"],
  webhooks: [],
};

/** Returns the runtime's files for an SDK with some features and settings, by path inside its folder, sorted. */
export function runtimeFiles(features: ReadonlySet<Feature>, { views }: TypescriptSettings): string[] {
  const wire = new Set([...always, ...[...features].flatMap((feature) => filesByFeature[feature])]);
  const frameworks = typeof views === "string" ? [views] : (views ?? []);
  const bindings = frameworks.length === 0 ? [] : ["live", ...frameworks];
  const wanted = [...[...wire].map((file) => `wire/${file}`), ...bindings.map((name) => `views/${name}.ts`)];
  return sortedBy(new Set(wanted), (file) => file);
}

/**
 * Returns the runtime's files as an SDK contains them, by their path inside its folder.
 *
 * @param sources by path inside the runtime's folder
 * @param ending the extension of relative imports
 */
export function printRuntime(sources: ReadonlyMap<string, string>, ending: "" | ".js"): Map<string, string> {
  const files = new Map<string, string>();
  for (const [path, source] of sources) {
    const text = source.replace(/\r\n/g, "\n");
    files.set(path, ending === ".js" ? text : text.replace(/(from "\.[^"]*)\.js"/g, '$1"'));
  }
  // The files for a framework are imported only by their own path.
  const wire = [...sources.keys()].flatMap((path) => /^wire\/(.*)\.ts$/.exec(path)?.[1] ?? []);
  const lines = sortedBy(wire, (name) => name).map((name) => `export * from "./${name}${ending}";`);
  return files.set("wire/index.ts", moduleText(header, [], [lines.join("\n")]));
}
