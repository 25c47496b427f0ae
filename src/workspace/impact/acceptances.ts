import { pointerPlace } from "../../core/problem/place.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import type { Project } from "../project/project.js";

/** Returns today's date, as YYYY-MM-DD in universal time. */
export function today(): string {
  return new Date().toISOString().slice(0, 10);
}

/** Returns the accepted changes whose date has passed. They count again, and a new decision is needed. */
export function outlivedAcceptances(project: Project): Problem[] {
  const now = today();
  return (project.configuration.guard?.accepted ?? []).flatMap(({ change, subject, reason, until }, at) =>
    until >= now
      ? []
      : [
          problem("guard.outlived", `\`${subject ?? change}\` was accepted until ${until}, and now counts again.`, {
            level: "warning",
            place: pointerPlace(project.configName, `/guard/accepted/${String(at)}`),
            why: `It was accepted because: ${reason}`,
            hint: "Fix what it breaks, or accept it again until a later date.",
          }),
        ],
  );
}
