import type { GenerateOutcome, SdkOutcome } from "../workspace/generateOutcome.js";
import type { TextOf } from "../core/report/renderProblem.js";
import { impactJson } from "./impactJson.js";
import { problemJson } from "./problemJson.js";

/** The outcome of a run as `--json` gives it. */
export function generateJson({ sdks, problems, exitCode, textOf }: GenerateOutcome, elapsedMs: number): object {
  return {
    exitCode,
    elapsedMs,
    sdks: sdks.map((sdk) => sdkJson(sdk, textOf)),
    problems: problems.map((problem) => problemJson(problem, textOf)),
  };
}

function sdkJson(sdk: SdkOutcome, textOf: TextOf): object {
  return {
    name: sdk.name,
    into: sdk.into,
    state: sdk.state,
    files: sdk.files,
    contracts: sdk.contracts,
    impacts: sdk.impacts.map((impact) => impactJson(impact, textOf, textOf)),
    problems: sdk.problems.map((problem) => problemJson(problem, textOf)),
  };
}
