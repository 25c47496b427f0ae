import type { LoweredContract } from "../../sdk/lower/loweredSdk.js";
import { callList } from "../pages/callList.js";
import { codeBlock, oneLine } from "../pages/markdown.js";
import type { ContractContext } from "./contractContext.js";
import { propertyName, quoted } from "./names/escape.js";
import { pageSpelling } from "./pageSpelling.js";
import { sampleText } from "./testing/printSample.js";

/** Prints the SDK's README: how to connect, and a list of all calls with links to their pages. */
export function printReadme(sdk: string, contracts: readonly ContractContext[]): string {
  return (
    `# SDK ${sdk}\n\nWritten by \`rhema generate\`. The next run replaces it. Import calls from a contract's \`index\`.\n` +
    `Each call is a function whose first argument is a connection. An app ships only the calls that it imports.\n\n` +
    `A connection also has the options \`headers\`, \`timeoutMs\`, \`onFailure\`, \`json\` and \`around\`. Import \`retrying()\`, \`eachRequest()\` and\n` +
    `\`eachAnswer()\` for \`around\` from \`wire/index\`, and \`renewable()\` for a credential that is fetched again when the server rejects it.\n\n${contracts.map(contractPart).join("\n")}`
  );
}

function contractPart(context: ContractContext): string {
  const { contract, names } = context;
  const { title, version, name } = contract.plan;
  const shown = version === "" ? "" : ` ${oneLine(version)}`;
  const { grouped, connect, cached } = names.contract;
  const described = contract.settings.cached
    ? `\nAll calls with a key and a function, for libraries that cache responses for screens: \`${cached}(connection)\` in \`${name}/cached\`.\n`
    : "";
  const allCalls = context.isTranspiled
    ? `All calls as methods, with one import (a page does it in \`<script type="module">\`):\n\n${codeBlock(`import { ${grouped}, ${connect} } from "./${name}/grouped.js";`, "js")}`
    : `All calls as methods: \`${grouped}(connection)\` in \`${name}/grouped\`.\n`;
  return (
    `## ${oneLine(title)}${shown}\n\n${codeBlock(connectSample(context), context.isTranspiled ? "js" : "ts")}\n` +
    `${allCalls}${described}\n${callList(contract, pageSpelling(context)).join("\n")}`
  );
}

function connectSample(context: ContractContext): string {
  const { contract, names } = context;
  const { connect } = names.contract;
  const { name } = contract.plan;
  const fields = [
    `baseUrl: ${quoted(addressOf(contract) ?? `http://localhost:4020/${name}`)}`,
    ...givenFields(context),
  ];
  return `import { ${connect} } from "./${name}/index.js";\n\nconst connection = ${connect}({ ${fields.join(", ")} });`;
}

function addressOf(contract: LoweredContract): string | undefined {
  return contract.protocol === "rest" ? contract.connection.address : undefined;
}

function givenFields({ contract, printer, isTranspiled }: ContractContext): string[] {
  if (contract.protocol !== "rest") return [];
  const { standing, credentials } = contract.connection;
  const [first] = credentials;
  const members = standing.map(
    ({ member, parameter }) =>
      `${propertyName(member)}: ${sampleText(parameter.type, printer) ?? (isTranspiled ? "undefined" : "undefined as never")}`,
  );
  return [
    ...(first ? [`auth: { ${propertyName(first.name)}: () => "token" }`] : []),
    ...(members.length > 0 ? [`standing: { ${members.join(", ")} }`] : []),
  ];
}
