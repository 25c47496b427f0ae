import type { UseTask } from "./useTask.js";
import { Secrets } from "../../core/text/secrets.js";
import type { SourceUse } from "../../core/use/sourceUse.js";
import { workspaceLanguages } from "../languages/index.js";

import type { ModuleImporter } from "../files/moduleImporter.js";
import { openProject } from "../project/openProject.js";
import { Session } from "../project/session.js";
import { untraced } from "../project/trace.js";

/** Searches for an app's uses of SDKs on disk. @throws Halt if the configuration can no longer be read */
export async function usesOfTask(task: UseTask, importer: ModuleImporter): Promise<SourceUse[]> {
  const session = new Session(importer, workspaceLanguages);
  const { root: folder, environment } = task;
  const where = { folder, environment, trace: untraced, secrets: new Secrets(), session };
  const project = await openProject(where, task.configName);
  const { uses } = await session.tools(task.language);
  return uses ? uses.find(project, task.parts) : [];
}
