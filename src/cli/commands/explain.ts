import { changeMeanings, isChangeCode } from "../../core/change/changeCodes.js";
import { changeExamples } from "../../core/change/examples.js";
import { isProblemCode, problemMeanings } from "../../core/problem/codes.js";
import { problemExamples } from "../../core/report/problemExamples.js";
import { problem } from "../../core/problem/problem.js";
import { explainChange, explainProblem, listCodes } from "../../core/report/renderExplanation.js";
import { didYouMean } from "../../core/text/nearest.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import type { Terminal } from "../output/terminal.js";

/**
 * `rhema explain [code]`: shows the meaning of a problem or change code, and the fix.
 *
 * @returns the exit code
 * @throws Halt if the code does not exist
 */
export function explainCommand(terminal: Terminal, code: string | undefined): number {
  const { paint } = terminal;
  if (code === undefined) {
    terminal.result(listCodes(paint));
    terminal.document({ problems: problemMeanings, changes: changeMeanings });
    return exitCodes.done;
  }
  if (isChangeCode(code)) {
    terminal.result(explainChange(code, paint));
    const { title, code: onCode, apps } = changeMeanings[code];
    terminal.document({ code, kind: "change", title, verdicts: { code: onCode, apps }, example: changeExamples[code] });
    return exitCodes.done;
  }
  if (isProblemCode(code)) {
    terminal.result(explainProblem(code, paint));
    terminal.document({ code, kind: "problem", ...problemMeanings[code], example: problemExamples[code] });
    return exitCodes.done;
  }
  const known = [...Object.keys(problemMeanings), ...Object.keys(changeMeanings)];
  const hint = didYouMean(code, known) ?? "`rhema explain` lists all codes.";
  throw new Halt([problem("explain.unknown", `There is no code \`${code}\`.`, { hint })], exitCodes.usage);
}
