import { renderProblem } from "../core/report/renderProblem.js";
import type { PlayedContract } from "../standin/standin.js";
import { ContractReader } from "../workspace/buildSdk.js";
import { chosenContracts } from "../workspace/chosenContracts.js";
import type { Project } from "../workspace/project.js";
import { ProjectTexts } from "../workspace/sdkInputs.js";
import type { Terminal } from "./terminal.js";

/** Reads contracts to play or to judge by, and tells what there is to say about them. */
export async function readPlayed(
  project: Project,
  contracts: readonly string[],
  terminal: Terminal,
): Promise<PlayedContract[]> {
  const texts = new ProjectTexts(project);
  const reader = new ContractReader(texts);
  const names = chosenContracts(project, contracts);
  await texts.readHosts(names);
  return names.map((name): PlayedContract => {
    const { contract, schema, raw, problems } = reader.read(name);
    terminal.note(problems.flatMap((each) => renderProblem(each, (document) => texts.find(document), terminal.paint)));
    return { contract, schema, raw };
  });
}
