import type { Contract } from "../../core/contract/model.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { selectOperations } from "../../core/sdk/selectOperations.js";
import { didYouMean } from "../../core/text/nearest.js";
import type { ContractConfiguration } from "./configuration.js";
import type { Project } from "../project/project.js";

/** Returns the words of the configuration that match nothing in the contract, and would have no effect. */
export function unmatchedWords(
  project: Project,
  name: string,
  { contract, settings }: { readonly contract: Contract; readonly settings: ContractConfiguration },
): Problem[] {
  const place = (key: string) => ({ document: project.configName, pointer: `/contracts/${name}/${key}` });
  const warn = (key: string, message: string, hint: string | undefined): Problem =>
    problem("config.invalid", message, {
      level: "warning",
      place: place(key),
      ...(hint === undefined ? {} : { hint }),
    });
  if (contract.protocol === "rest") {
    const { only, skip, standing, pages, queries } = settings;
    // There are no words that could match nothing.
    if (!only && !skip && !standing && !pages && !queries) return [];
    const { unmatched } = selectOperations(contract.operations, settings);
    const operationIds = contract.operations.flatMap(({ operationId }) => operationId ?? []);
    const parameters = new Set(
      contract.operations.flatMap((operation) => operation.parameters.map((parameter) => parameter.name)),
    );
    const ids = contract.operations.flatMap((operation) => [
      ...(operation.operationId === undefined ? [] : [operation.operationId]),
      ...operation.tags,
    ]);
    return [
      ...unmatched.map((pattern) =>
        warn(
          only?.includes(pattern) ? "only" : "skip",
          `\`${pattern}\` matches no operation of \`${name}\`.`,
          didYouMean(pattern, ids),
        ),
      ),
      ...(standing ?? [])
        .filter((each) => !parameters.has(each))
        .map((each) =>
          warn("standing", `No operation of \`${name}\` has a parameter \`${each}\`.`, didYouMean(each, parameters)),
        ),
      ...Object.keys(pages ?? {})
        .filter((each) => !operationIds.includes(each))
        .map((each) =>
          warn("pages", `\`${name}\` has no operation with the id \`${each}\`.`, didYouMean(each, operationIds)),
        ),
      ...(queries
        ? [warn("queries", `\`${name}\` is a REST contract, but query documents are for GraphQL.`, undefined)]
        : []),
    ];
  }
  const scalars = [...contract.types.values()].filter((type) => type.role === "scalar").map((type) => type.name);
  return Object.keys(settings.scalars ?? {})
    .filter((scalar) => !scalars.includes(scalar))
    .map((scalar) => warn("scalars", `\`${name}\` has no scalar \`${scalar}\`.`, didYouMean(scalar, scalars)));
}
