import { memberNameFrom } from "../../sdk/nameScope.js";
import type { ContractPlan, GraphqlPlan, RestPlan, SdkPlan } from "../../sdk/sdkPlan.js";
import { groupedBy } from "../../text/groupedBy.js";
import { sortedBy } from "../../text/sortedBy.js";
import { propertyName, quoted } from "./escape.js";
import { contractNames } from "./identifiers.js";
import { defaultUrl } from "./printConnect.js";
import { graphqlCallFiles, graphqlCallNames } from "./printGraphqlCall.js";
import { codeBlock, groupTitle, oneLine, pagePath } from "./markdown.js";
import { restCallNames } from "./printRestCall.js";
import type { TypePrinter } from "./printType.js";
import { sampleOf } from "./sampleValue.js";

/** Prints the SDK's README: how to connect, and every call by name, with the page that tells all about it. */
export function printReadme(plan: SdkPlan, printers: ReadonlyMap<string, TypePrinter>): string {
  const parts = plan.contracts.map((contract) => {
    const printer = printers.get(contract.name);
    return printer ? contractPart(contract, printer) : "";
  });
  return (
    `# SDK ${plan.name}\n\nWritten by \`rhema generate\`; the next run replaces it. Import what you need from a contract's \`index\`:\n` +
    `each call is a function of its own that takes a connection first, so an app ships only the calls it imports.\n\n` +
    `A connection also takes \`headers\`, \`timeoutMs\`, \`onFailure\`, \`json\` and \`around\`; from \`wire/index\` come \`retrying()\`, \`eachRequest()\` and \`eachAnswer()\` for\n` +
    `\`around\`, and \`renewable()\` for a credential that is got anew when the server rejects it.\n\n${parts.join("\n")}`
  );
}

function contractPart(plan: ContractPlan, printer: TypePrinter): string {
  const names = contractNames(plan.name);
  const rows = plan.protocol === "rest" ? restRows(plan) : graphqlRows(plan);
  const version = plan.version === "" ? "" : ` ${oneLine(plan.version)}`;
  return (
    `## ${oneLine(plan.title)}${version}\n\n${codeBlock(connectSample(plan, printer))}\n` +
    `All calls behind a dot: \`${names.grouped}(connection)\` in \`${plan.name}/grouped\`.\n\n${rows.join("\n")}`
  );
}

function connectSample(plan: ContractPlan, printer: TypePrinter): string {
  const names = contractNames(plan.name);
  const known = plan.protocol === "rest" ? defaultUrl(plan.servers) : undefined;
  const fields = [`baseUrl: ${quoted(known ?? `http://localhost:4020/${plan.name}`)}`];
  if (plan.protocol === "rest") {
    const [scheme] = sortedBy(plan.authSchemes.keys(), (name) => name);
    if (scheme !== undefined) fields.push(`auth: { ${propertyName(scheme)}: () => "token" }`);
    if (plan.standing.length > 0) {
      fields.push(
        `standing: { ${plan.standing.map((each) => `${propertyName(memberNameFrom(each.name))}: ${sampleOf(each.type, printer) ?? "undefined as never"}`).join(", ")} }`,
      );
    }
  }
  return `import { ${names.connect} } from "./${plan.name}/index.js";\n\nconst connection = ${names.connect}({ ${fields.join(", ")} });`;
}

/** The calls by group, each group with what the contract says about its tag. */
function restRows(plan: RestPlan): string[] {
  const groups = sortedBy(
    groupedBy(plan.calls, (call) => call.group),
    ([group]) => group,
  );
  return groups.map(([group, own]) => {
    const tag = plan.tags.get(group);
    const words = oneLine(tag?.summary ?? tag?.description ?? "");
    const calls = own.map((call) =>
      row(restCallNames(call).call, call.operation.summary ?? call.operation.description),
    );
    return `### [${groupTitle(plan, group)}](${pagePath(plan, group)})\n${words === "" ? "" : `\n${words}\n`}\n${calls.join("")}`;
  });
}

function graphqlRows(plan: GraphqlPlan): string[] {
  const files = graphqlCallFiles(plan);
  const calls = plan.calls.map((call) => {
    const words = oneLine(call.operation.description ?? "");
    const page = `${plan.name}/calls/${files.get(call.name) ?? ""}.md`;
    return `- [\`${graphqlCallNames(call).call}\`](${page})${words === "" ? "" : `: ${words}`}\n`;
  });
  return calls.length === 0 ? [] : [`### Calls\n\n${calls.join("")}`];
}

function row(name: string, summary: string | undefined): string {
  const words = oneLine(summary ?? "");
  return `- \`${name}\`${words === "" ? "" : `: ${words}`}\n`;
}
