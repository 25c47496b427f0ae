import { join } from "node:path";
import type { Language } from "../../core/languages/language.js";
import type { SdkPart } from "../languages/languageTools.js";
import { outputFolder, type Project } from "../project/project.js";

/** A part of an SDK by name, with the SDK's language. */
export interface NamedPart {
  readonly sdk: string;
  readonly contract: string;
  readonly language: Language;
}

/** Returns a contract's part of an SDK, with the function that creates its connection. */
export function sdkPart(project: Project, { sdk, contract, language }: NamedPart): SdkPart {
  const { into = "", settings = {} } = project.configuration.sdks[sdk] ?? {};
  const folder = join(outputFolder(project, sdk, into), language.folder(contract, settings));
  return { sdk, contract, folder, connect: language.contractNames(contract).connect };
}
