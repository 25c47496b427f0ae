import { memberNameFrom } from "../../sdk/nameScope.js";
import { sortedBy } from "../../text/sortedBy.js";
import { callList } from "../pages/callList.js";
import { codeBlock, oneLine } from "../pages/markdown.js";
import type { ContractContext } from "./contractContext.js";
import { quoted } from "./names/escape.js";
import { parameterIdentifier } from "./names/identifiers.js";
import { packageName } from "./packageFile.js";
import { pageSpelling } from "./pageSpelling.js";
import { standingName } from "./calls/printConnection.js";
import { sampleText } from "./testing/printSample.js";
import type { SwiftSettings } from "./settings.js";

/** Prints the SDK's README: how to build it, how to connect, and a list of all calls with links to their pages. */
export function printReadme(sdk: string, contexts: readonly ContractContext[], settings: SwiftSettings): string {
  return `# SDK ${sdk}\n\nWritten by \`rhema generate\`. The next run replaces it. Calls are functions of a connection: type a dot after a connection to see them all.\n\n${contexts.map(contractPart).join("\n")}\n${building(sdk, contexts, settings)}`;
}

function contractPart(context: ContractContext): string {
  const { contract } = context;
  const { title, version } = contract.plan;
  const shown = version === "" ? "" : ` ${oneLine(version)}`;
  return `## ${oneLine(title)}${shown}\n\n${codeBlock(connectSample(context), "swift")}\n${callList(contract, pageSpelling(context)).join("\n")}`;
}

function connectSample(context: ContractContext): string {
  const { contract, connection } = context;
  const address = contract.protocol === "rest" ? contract.connection.address : undefined;
  const given = sortedBy(
    [["baseURL", quoted(address ?? `http://localhost:4020/${contract.plan.name}`)], ...givenFields(context)],
    ([name = ""]) => name,
  );
  return `let connection = ${connection}(${given.map(([name = "", value = ""]) => `${name}: ${value}`).join(", ")})`;
}

function givenFields(context: ContractContext): string[][] {
  const { contract } = context;
  if (contract.protocol !== "rest") return [["bearer", "{ await session.token }"]];
  const [first] = contract.connection.credentials;
  return [
    ...(first ? [["auth", `.init(${parameterIdentifier(memberNameFrom(first.name))}: { await session.token })`]] : []),
    ...contract.connection.standing.map(({ member, parameter }) => [
      standingName(member),
      sampleText(parameter.type, context) ?? "…",
    ]),
  ];
}

function building(sdk: string, contexts: readonly ContractContext[], settings: SwiftSettings): string {
  const [first] = contexts;
  const isReturned = first?.contract.settings.failures === "return";
  const how =
    settings.package === true
      ? `This folder is a package. In Xcode, choose *File > Add Package Dependencies > Add Local* and select this folder. Or add \`.package(path: "…")\` to the \`dependencies\` of your \`Package.swift\` and \`"${packageName(sdk)}"\` to those of the target. Then use \`import ${packageName(sdk)}\`.\n\n`
      : "Add this folder to the app's target. In Xcode, drag it into the project as a folder and select the target. In a package, put it into `Sources/` and the folder of the target. You do not import anything, and nothing in it is public. Run `npx rhema generate` before you build if the contract has changed.\n\n";
  return (
    "## Building\n\nSwift 6 or newer in the Swift 6 language mode; iOS 15, macOS 12, tvOS 15, watchOS 8 or Linux. Foundation is the only dependency.\n\n" +
    how +
    (isReturned
      ? ""
      : `A call throws only its own failures. The compiler checks a \`switch\` over them:\n\n${codeBlock(
          "do {\n  let answer = try await connection.call()\n} catch {\n  switch error {\n  case .notFound(let failure): show(failure.body)\n  case .other(let failure): show(failure.mishap)\n  // and the other cases of the call\n  }\n}",
          "swift",
        )}\nIn a closure, write the type, because the compiler does not infer it: \`do throws(CallFailure) { … }\`.\n\n`) +
    "The SDK's tests run on Linux only. On Linux, three things differ. A stream does not slow down its sender while nobody reads it. A subscription over WebSocket cannot distinguish an application's close codes. The platform ends the program on a `401` whose `WWW-Authenticate` is a single word.\n"
  );
}
