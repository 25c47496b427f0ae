import { join } from "node:path";
import type { Language } from "../../core/languages/language.js";
import type { SdkPart } from "../languages/languageTools.js";
import { outputFolder, type Project } from "../project/project.js";

/** Which part of which SDK, and the language that it is in. */
export interface NamedPart {
  readonly sdk: string;
  readonly contract: string;
  readonly language: Language;
}

/** Where a contract's part of an SDK is, and what makes a connection there. */
export function sdkPart(project: Project, { sdk, contract, language }: NamedPart): SdkPart {
  const { into = "", settings = {} } = project.configuration.sdks[sdk] ?? {};
  const folder = join(outputFolder(project, sdk, into), language.folder(contract, settings));
  return { sdk, contract, folder, connect: language.contractNames(contract).connect };
}
