import { groupFile } from "../../sdk/lower/callFiles.js";
import type { LoweredContract, LoweredGraphql, LoweredRest } from "../../sdk/lower/loweredSdk.js";
import { groupedBy } from "../../text/groupedBy.js";
import { sortedBy } from "../../text/sortedBy.js";
import { groupTitle } from "./callPages.js";
import { oneLine } from "./markdown.js";
import type { PageSpelling } from "./pageSpelling.js";

type Names = Pick<PageSpelling, "callName" | "page">;

/** Returns the parts of a README with a list of a contract's calls and links to their pages. */
export function callList(contract: LoweredContract, spelling: Names): string[] {
  return contract.protocol === "rest" ? restRows(contract, spelling) : graphqlRows(contract, spelling);
}

/** Returns the calls by group, each group with the contract's description of its tag. */
function restRows(contract: LoweredRest, spelling: Names): string[] {
  const { plan, calls } = contract;
  const groups = sortedBy(
    groupedBy(calls, ({ call }) => call.group),
    ([group]) => group,
  );
  return groups.map(([group, own]) => {
    const tag = plan.tags.get(group);
    const words = oneLine(tag?.summary ?? tag?.description ?? "");
    const rows = own.map((lowered) => {
      const { summary, description } = lowered.call.operation;
      const said = oneLine(summary ?? description ?? "");
      return `- \`${spelling.callName(lowered)}\`${said === "" ? "" : `: ${said}`}\n`;
    });
    const page = spelling.page(contract, groupFile(group));
    return `### [${groupTitle(plan, group)}](${page})\n${words === "" ? "" : `\n${words}\n`}\n${rows.join("")}`;
  });
}

function graphqlRows(contract: LoweredGraphql, spelling: Names): string[] {
  const rows = contract.calls.map((lowered) => {
    const words = oneLine(lowered.call.operation.description ?? "");
    const page = spelling.page(contract, lowered.file);
    return `- [\`${spelling.callName(lowered)}\`](${page})${words === "" ? "" : `: ${words}`}\n`;
  });
  return rows.length === 0 ? [] : [`### Calls\n\n${rows.join("")}`];
}
