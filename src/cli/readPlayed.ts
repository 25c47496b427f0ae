import { scalarFormats } from "../workspace/generate/planContract.js";
import { ShownTexts } from "../core/problem/shownTexts.js";
import { operationId } from "../core/graphql/documents/operationId.js";
import type { ContractReading } from "../core/contract/contractReading.js";
import { renderProblem } from "../core/report/renderProblem.js";
import { credentialNames } from "../standin/shownTraffic.js";
import type { PlayedContract } from "../standin/playedContract.js";
import { callSamples } from "../workspace/callSamples.js";
import { ContractReader } from "../workspace/sources/contractReader.js";
import { readQueries } from "../workspace/generate/planContract.js";
import { allOrHalt } from "../workspace/project/allOrHalt.js";
import { chosenContracts } from "../workspace/configuration/chosenContracts.js";
import type { OpenedProject } from "../workspace/project/openProject.js";
import { ProjectTexts } from "../workspace/generate/sdkInputs.js";
import { hashOf } from "../workspace/files/textFile.js";
import { settledSettings } from "../core/languages/settings.js";
import type { Terminal } from "./output/terminal.js";

/** Reads contracts for the stand-in server or for `observe`, and reports their problems. */
export async function readPlayed(
  project: OpenedProject,
  contracts: readonly string[],
  terminal: Terminal,
): Promise<PlayedContract[]> {
  const texts = new ProjectTexts(project);
  const reader = new ContractReader(texts);
  const names = chosenContracts(project, contracts);
  await texts.readHosts(names);
  const shown = new ShownTexts((document) => texts.find(document));
  return allOrHalt(names, (name): PlayedContract => {
    const reading = reader.read(name);
    const { contract, schema, raw, problems } = reading;
    terminal.note(problems.filter(terminal.isTold).flatMap((each) => renderProblem(each, shown, terminal.paint)));
    for (const credential of credentialNames([contract])) terminal.host.secrets.learnName(credential);
    const scalars = scalarFormats(project.configuration.contracts[name]);
    let made: ReturnType<typeof callSamples> | undefined;
    const samples = () => (made ??= callSamples(project, reading, texts));
    return { contract, schema, raw, scalars, samples, texts: schema && textsById(project, name, { reading, texts }) };
  });
}

/** The texts of a contract's operations by the ids that SDKs send instead, if the settings give them ids. */
function textsById(
  project: OpenedProject,
  contract: string,
  { reading, texts }: { readonly reading: ContractReading; readonly texts: ProjectTexts },
): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  for (const { covers, language, settings = {} } of Object.values(project.configuration.sdks)) {
    if (!covers.includes(contract) || settings.manifest !== true) continue;
    const shared = settledSettings(project.session.listed(language).settings, settings);
    for (const { text } of readQueries(contract, reading, { texts, pick: shared })?.operations ?? [])
      found.set(operationId(hashOf(text)), text);
  }
  return found;
}
