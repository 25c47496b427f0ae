import type { Language } from "../../../src/core/languages/language.js";
import { readContract } from "../../../src/core/readContract.js";
import { readQueryDocuments } from "../../../src/core/graphql/readQueryDocuments.js";
import { readGraphqlContract } from "../../../src/core/graphql/readGraphqlContract.js";
import { planGraphql } from "../../../src/core/sdk/planGraphql.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { bundled } from "../../support/bundled.js";
import { demoProject, type TemporaryProject } from "../../support/temporaryProject.js";
import type { SdkModule } from "../vectors/playScript.js";
import { Recorder } from "./recorder.js";
import { platformHeaders, playStep, type ScriptSdk, type Told } from "./scriptDriver.js";
import type { Story } from "./storyStep.js";

/** Plays the story with an SDK in TypeScript or JavaScript, against a stand-in of its own. */
export async function playedByScript(language: Language, story: Story): Promise<readonly Told[]> {
  const project = demoProject();
  const berths = project.read("contracts/berths.yaml").replace("\npaths:\n", `\npaths:\n${story.paths.join("\n")}\n`);
  project.write("contracts/berths.yaml", berths);
  const schema = `${project.read("contracts/passages.graphql")}\n${story.definitions.join("\n")}\n`;
  project.write("contracts/passages.graphql", schema);
  for (const [file, text] of Object.entries(story.queries)) project.write(`queries/${file}`, text);
  const configuration = project
    .read("rhema.yaml")
    .replace("language: typescript", `language: ${language.id}`)
    .replaceAll("{ typescript: string }", `{ ${language.id}: string }`)
    .replace(/settings: .*/, `settings: ${JSON.stringify(story.settings)}`);
  project.write("rhema.yaml", configuration);
  const { code, err } = await project.run(["generate"]);
  if (code !== 0) throw new Error(err);
  const standin = await project.play();
  const recorder = await Recorder.before(standin, platformHeaders);
  try {
    const sdk = await scriptSdk(project, language, story);
    const told: Told[] = [];
    for (const step of story.steps) told.push(await playStep(step, sdk, recorder));
    return told;
  } finally {
    recorder.close();
  }
}

async function scriptSdk(project: TemporaryProject, language: Language, { settings }: Story): Promise<ScriptSdk> {
  const ending = project.exists("src/sdk/wire/index.ts") ? "ts" : "js";
  // One bundle holds the runtime once, as an app does.
  project.write(
    "all.ts",
    `export * as berths from "./src/sdk/berths/index.${ending}";\nexport * as passages from "./src/sdk/passages/index.${ending}";\nexport * as wire from "./src/sdk/wire/index.${ending}";\n`,
  );
  const modules = await bundled<Readonly<Record<string, SdkModule>>>(project, "all.ts");
  return { contracts: contractsOf(project, language, modules, settings), wire: modules["wire"] ?? {} };
}

function contractsOf(
  project: TemporaryProject,
  language: Language,
  modules: Readonly<Record<string, SdkModule>>,
  settings: Story["settings"],
): ScriptSdk["contracts"] {
  const rest = readContract("berths", [{ document: "berths.yaml", text: project.read("contracts/berths.yaml") }]);
  const graphql = readGraphqlContract("passages", [
    { document: "passages.graphql", text: project.read("contracts/passages.graphql") },
  ]);
  if (rest.contract?.protocol !== "rest" || !graphql.contract || !graphql.schema)
    throw new Error("The demo cannot be read.");
  const pages = Object.fromEntries(
    ["listBerths", "listReservations", "listVessels"].map((name) => [
      name,
      { by: "cursor", parameter: "cursor" } as const,
    ]),
  );
  const queries = Object.entries(project.tree("queries")).map(([document, text]) => ({ document, text }));
  const scalars = new Map(["Day", "Instant", "Payload"].map((name) => [name, {}]));
  const unions = settings["unions"] === "open" ? ("open" as const) : ("closed" as const);
  const plans = {
    berths: planRest(rest.contract, { pages }),
    passages: planGraphql(graphql.contract, readQueryDocuments(graphql.schema, queries), { scalars, unions }),
  };
  return Object.fromEntries(
    Object.entries(plans).map(([name, plan]) => [
      name,
      { module: modules[name] ?? {}, connect: language.contractNames(name).connect, plan },
    ]),
  );
}
