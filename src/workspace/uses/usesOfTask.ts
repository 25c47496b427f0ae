import { Secrets } from "../../core/text/secrets.js";
import type { SourceUse } from "../../core/use/sourceUse.js";
import { workspaceLanguages } from "../languages/index.js";
import type { SdkPart } from "../languages/languageTools.js";
import type { ModuleImporter } from "../files/moduleImporter.js";
import { openProject } from "../project/openProject.js";
import { Session } from "../project/session.js";
import { untraced, type Environment } from "../project/trace.js";

/** What a thread of its own is to look for; plain data, because it goes from one thread to another. */
export interface UseTask {
  readonly root: string;
  readonly configName: string;
  readonly environment: Environment;
  /** The language of the SDKs. */
  readonly language: string;
  readonly parts: readonly SdkPart[];
}

/** Looks for what an app uses of SDKs that are written. @throws Halt when the configuration cannot be read any more */
export async function usesOfTask(task: UseTask, importer: ModuleImporter): Promise<SourceUse[]> {
  const session = new Session(importer, workspaceLanguages);
  const { root: folder, environment } = task;
  const where = { folder, environment, trace: untraced, secrets: new Secrets(), session };
  const project = await openProject(where, task.configName);
  const { uses } = await session.tools(task.language);
  return uses ? uses.find(project, task.parts) : [];
}
