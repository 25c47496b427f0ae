import type { SettingsDescription } from "../../core/languages/settings.js";
import type { ContractNames } from "../../core/sdk/contractNames.js";
import { problem, type Problem } from "../../core/problem/problem.js";
import { pagingObstacle } from "../../core/sdk/planPaging.js";
import { sharedParameters } from "../../core/sdk/sharedParameters.js";
import type { ContractPlan, RestPlan } from "../../core/sdk/sdkPlan.js";
import { wideIntegers } from "../../core/sdk/wideIntegers.js";
import type { ContractConfiguration } from "../configuration/configuration.js";
import type { Project } from "../project/project.js";

/** Returns suggestions for the configuration of a contract, as far as the contract shows them. */
export function proposals(
  project: Project,
  plan: RestPlan,
  { settings, names }: { readonly settings: ContractConfiguration; readonly names: ContractNames },
): Problem[] {
  const place = { document: project.configName, pointer: `/contracts/${plan.name}` };
  const found: Problem[] = [];
  const paged = plan.calls.filter((call) => call.paging?.isRecognised === true);
  const [first] = paged;
  if (first?.paging) {
    const id = first.operation.operationId ?? first.name;
    const shown = paged
      .slice(0, mostShown)
      .map((call) => `\`${call.name}\` (${pagingWords[call.paging?.by ?? "cursor"]})`);
    const more = paged.length > mostShown ? ` and ${String(paged.length - mostShown)} more` : "";
    const count = paged.length === 1 ? "1 call seems" : `${String(paged.length)} calls seem`;
    found.push(
      problem(
        "contract.pages",
        `${count} to page: ${shown.join(", ")}${more}. \`${names.call(first).pages ?? ""}\` returns all items.`,
        { level: "note", place, hint: `If one does not, set \`pages: { ${id}: off }\`.` },
      ),
    );
  }
  for (const { name, count } of sharedParameters(plan.calls)) {
    if (settings.standing?.includes(name)) continue;
    found.push(
      problem(
        "contract.standing",
        `${String(count)} of ${String(plan.calls.length)} operations have the parameter \`${name}\`.`,
        {
          level: "note",
          place,
          hint: `\`standing: [${name}]\` sets it once, on the connection.`,
        },
      ),
    );
  }
  return found;
}

/** Returns the configured pages that cannot be read, and would have no effect. */
export function unfitPages(project: Project, plan: RestPlan, { pages = {} }: ContractConfiguration): Problem[] {
  const place = { document: project.configName, pointer: `/contracts/${plan.name}/pages` };
  return plan.calls.flatMap((call) => {
    const why = pagingObstacle(call, plan.types, pages);
    if (why === undefined) return [];
    const name = call.operation.operationId ?? call.name;
    const message = `The pages of \`${name}\` cannot be loaded: ${why}.`;
    const hint = `Correct \`pages\`, or set \`${name}: off\`.`;
    return [problem("config.invalid", message, { level: "warning", place, hint })];
  });
}

/** Returns what an SDK could do better with another setting. */
export function losses(
  project: Project,
  plan: ContractPlan,
  {
    sdk,
    names,
    int64,
  }: { readonly sdk: string; readonly names: ContractNames; readonly int64: SettingsDescription["shared"]["int64"] },
): Problem[] {
  const place = { document: project.configName, pointer: `/contracts/${plan.name}` };
  const listed = (names: readonly string[]): string => {
    const more = names.length > mostShown ? ` and ${String(names.length - mostShown)} more` : "";
    return names.slice(0, mostShown).join(", ") + more;
  };
  const found: Problem[] = [];
  const exact = (int64?.values ?? []).filter((value) => value !== "number");
  // If the language's usual integer keeps all digits, there is nothing to suggest.
  const isOpen = int64?.usual === "number" && project.configuration.sdks[sdk]?.settings?.int64 === undefined;
  const wide = isOpen && exact.length > 0 ? wideIntegers(plan) : [];
  if (wide.length > 0) {
    const count = wide.length === 1 ? "1 place has" : `${String(wide.length)} places have`;
    const message = `${count} 64-bit integers, which become \`number\` in \`${sdk}\`: ${listed(wide.map((name) => `\`${name}\``))}.`;
    const [best = "", ...others] = exact;
    const or = others.length > 0 ? ` (or ${others.map((value) => `\`${value}\``).join(", ")})` : "";
    const hint = `Set \`int64: ${best}\`${or} in the SDK's \`settings\`, or \`int64: number\` if no value is that long.`;
    found.push(problem("contract.integers", message, { level: "note", place, hint }));
  }
  const clashes = [...plan.clashes, ...names.clashes];
  if (clashes.length > 0) {
    const apart = clashes.map(({ name, wanted }) => `\`${name}\` instead of \`${wanted}\``);
    const count = clashes.length === 1 ? "1 name is" : `${String(clashes.length)} names are`;
    const hint =
      plan.protocol === "graphql"
        ? "Rename the query or fragment in its document. A type of the schema keeps its name."
        : "Ask for another `operationId` or schema name in the contract, or leave an operation out with `skip`.";
    found.push(
      problem("contract.names", `${count} used more than once and changed: ${listed(apart)}.`, {
        level: "note",
        place,
        hint,
      }),
    );
  }
  return found;
}

const mostShown = 5;

const pagingWords = {
  cursor: "by a cursor",
  offset: "by how many items to pass over",
  number: "by page number",
  link: "by links",
} as const;
