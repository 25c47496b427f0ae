import type { LoweredContract } from "../../sdk/lower/loweredSdk.js";
import { callList } from "../pages/callList.js";
import { codeBlock, oneLine } from "../pages/markdown.js";
import { buildingPart } from "./buildLines.js";
import { inFile, type ContractContext } from "./contractContext.js";
import { quoted } from "./names/escape.js";
import { spelled } from "./names/identifiers.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import { pageSpelling } from "./pageSpelling.js";
import { standingName } from "./calls/printConnection.js";
import type { KotlinSettings } from "./settings.js";
import { sampleText } from "./testing/printSample.js";

/** Prints the SDK's README: how to build it, how to connect, and a list of all calls with links to their pages. */
export function printReadme(sdk: string, contexts: readonly ContractContext[], settings: KotlinSettings): string {
  const decodes = contexts.some(({ contract }) => contract.settings.dates === "decoded");
  return `# SDK ${sdk}\n\nWritten by \`rhema generate\`. The next run replaces it. Calls are functions of a connection: type a dot after a connection to see them all.\n\n${contexts.map(contractPart).join("\n")}\n${building(decodes, settings)}`;
}

function contractPart(context: ContractContext): string {
  const { contract } = context;
  const { title, version } = contract.plan;
  const shown = version === "" ? "" : ` ${oneLine(version)}`;
  return `## ${oneLine(title)}${shown}\n\n${codeBlock(connectSample(context), "kotlin")}\n${callList(contract, pageSpelling(context)).join("\n")}`;
}

function connectSample(context: ContractContext): string {
  const { contract, names } = context;
  const own = names.contract;
  const given = [
    `baseUrl = ${quoted(addressOf(contract) ?? `http://localhost:4020/${contract.plan.name}`)}`,
    ...givenFields(context),
  ].sort();
  return `import ${context.package}.*\n\nval connection = ${own.connection}(${given.join(", ")})`;
}

function addressOf(contract: LoweredContract): string | undefined {
  return contract.protocol === "rest" ? contract.connection.address : undefined;
}

function givenFields(context: ContractContext): string[] {
  const { contract, names } = context;
  if (contract.protocol !== "rest") return ["bearer = { session.token() }"];
  const inside = inFile(context);
  const [first] = contract.connection.credentials;
  return [
    ...(first ? [`auth = ${names.contract.auth}(${spelled(memberNameFrom(first.name))} = { session.token() })`] : []),
    ...contract.connection.standing.map(
      ({ member, parameter }) => `${spelled(standingName(member))} = ${sampleText(parameter.type, inside) ?? "…"}`,
    ),
  ];
}

function building(decodes: boolean, settings: KotlinSettings): string {
  const lines =
    settings.package === true
      ? 'This folder is a module of its own. Add it to `settings.gradle.kts` with `include` and depend on it with `implementation(project(":path"))`, or install it with `mvn install`. The SDK\'s tests do not run its Gradle file.\n\n'
      : buildingPart(settings.placement);
  return (
    "## Building\n\nKotlin 2.0 or newer, Java 8 or Android 21. You need no compiler plug-in, no annotation processor and no shrinker rules.\n\n" +
    lines +
    (decodes
      ? "Date-times are `java.time.Instant`. For Android below 26, enable core library desugaring in the app.\n\n"
      : "") +
    'The Android emulator reaches the computer\'s own servers at another address. In debug builds, use `baseUrl = onEmulator("http://localhost:4020")`. Allow plain HTTP there with `android:usesCleartextTraffic="true"` in `src/debug/AndroidManifest.xml`.\n'
  );
}
