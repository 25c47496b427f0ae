import type { GenerateOutcome, SdkOutcome } from "../../workspace/generate/generateOutcome.js";
import type { ShownTexts } from "../../core/problem/shownTexts.js";
import { impactJson } from "./impactJson.js";
import { problemJson } from "./problemJson.js";

/**
 * Returns the outcome of a run for `--json`.
 *
 * @param elapsedMs the duration in milliseconds
 */
export function generateJson({ sdks, editors, problems, exitCode, texts }: GenerateOutcome, elapsedMs: number): object {
  return {
    exitCode,
    elapsedMs,
    sdks: sdks.map((sdk) => sdkJson(sdk, texts)),
    ...(editors === undefined ? {} : { editors }),
    problems: problems.map((problem) => problemJson(problem, texts)),
  };
}

function sdkJson(sdk: SdkOutcome, texts: ShownTexts): object {
  return {
    name: sdk.name,
    into: sdk.into,
    state: sdk.state,
    files: sdk.files,
    contracts: sdk.contracts,
    impacts: sdk.impacts.map((impact) => impactJson(impact, texts, texts)),
    problems: sdk.problems.map((problem) => problemJson(problem, texts)),
  };
}
