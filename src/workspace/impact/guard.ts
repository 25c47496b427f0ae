import { capital } from "../../core/text/capital.js";
import { isHeld, judged, type Gate } from "../../core/change/judge/gate.js";
import type { JudgedChange } from "../../core/change/judge/judgedChange.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { compareSides, readSide } from "./compareWithPin.js";
import type { ContractReader } from "../sources/contractReader.js";
import type { OpenedProject } from "../project/openProject.js";
import { sideTexts } from "./sides.js";

/**
 * Returns what breaks in use since the guarded revision, also if the SDK was generated again in the meantime: one
 * problem for each change that fails the gate, at the affected places.
 *
 * @param texts filled with the texts of the revision, for showing places in them
 * @throws Halt if there is no such revision
 */
export async function guarded(
  project: OpenedProject,
  contracts: Iterable<string>,
  {
    reader,
    gate,
    texts,
  }: { readonly reader: ContractReader; readonly gate: Gate; readonly texts: Map<string, string> },
): Promise<Problem[]> {
  const since = project.configuration.guard?.since;
  if (since === undefined || gate.level === "off") return [];
  const problems: Problem[] = [];
  for (const name of contracts) {
    const side = await sideTexts(project, name, { spec: since, cwd: project.root });
    if (!side) continue;
    const now = reader.side(name);
    for (const { document, text } of side.texts) texts.set(document, text);
    const before = readSide(name, side.texts, { label: side.label });
    if (before.contract.protocol !== now.contract.protocol) continue;
    const { changes } = await compareSides(name, [before, now], {
      session: project.session,
      texts: reader.texts,
      mayBeAdapted: true,
    });
    for (const change of changes) {
      if (!isHeld(change, gate)) continue;
      const places =
        change.hits.length > 0 ? change.hits.map(({ place }) => place) : change.after ? [change.after] : [];
      problems.push(
        problem("guard.broken", change.message, {
          places,
          why: `${capital(judged(change.verdict, gate.judge))} since \`${since}\` (${change.code}: code ${change.verdict.code}, apps ${change.verdict.apps}).`,
          hint: hintOf(change),
        }),
      );
    }
  }
  return problems;
}

/** What to do: adapt source, or decide about released apps. */
function hintOf({ hint, verdict, code, subject }: JudgedChange): string {
  const accept = `accept it until a date: \`guard.accepted: [{ change: ${code}, subject: ${subject}, … }]\`.`;
  if (verdict.code !== "compatible") return hint ?? "Fix the locations above.";
  return `Your source is not affected, but released apps are. Wait until nobody uses them, or ${accept}`;
}
