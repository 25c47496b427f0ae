import type { Language } from "../../../src/core/languages/language.js";
import { bundled } from "../../support/bundled.js";
import type { TemporaryProject } from "../../support/temporaryProject.js";
import type { SdkModule } from "../vectors/playScript.js";
import { Recorder } from "./recorder.js";
import { platformHeaders, playStep, type ScriptSdk, type Told } from "./scriptDriver.js";
import { storyPlans, storyProject } from "./storyContracts.js";
import type { Story } from "./storyStep.js";

/** Runs the story with an SDK in TypeScript or JavaScript, with a stand-in server of its own. */
export async function playedByScript(language: Language, story: Story): Promise<readonly Told[]> {
  const project = storyProject(story);
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
  // One bundle contains the runtime once, as in an app.
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
  return Object.fromEntries(
    Object.entries(storyPlans(project, settings)).map(([name, plan]) => [
      name,
      { module: modules[name] ?? {}, connect: language.contractNames(name).connect, plan },
    ]),
  );
}
