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

/** Prints the SDK's README: how to build it, how to connect, and every call by name, with the page that tells all about it. */
export function printReadme(sdk: string, contexts: readonly ContractContext[], settings: SwiftSettings): string {
  return `# SDK ${sdk}\n\nWritten by \`rhema generate\`; the next run replaces it. Calls are functions of a connection: type a dot behind one to see them all.\n\n${contexts.map(contractPart).join("\n")}\n${building(sdk, contexts, settings)}`;
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
      ? `This folder is a package: in Xcode choose *File > Add Package Dependencies > Add Local* and this folder, or add \`.package(path: "…")\` to the \`dependencies\` of your \`Package.swift\` and \`"${packageName(sdk)}"\` to those of the target. Its calls are then behind \`import ${packageName(sdk)}\`.\n\n`
      : "Add this folder to the app's target: in Xcode drag it into the project as a folder and tick the target, in a package place it below `Sources/` and the target's name. Nothing has to be imported, and nothing of it is public. Run `npx rhema generate` before you build when the contract has changed.\n\n";
  return (
    "## Building\n\nSwift 6 or newer in the Swift 6 language mode; iOS 15, macOS 12, tvOS 15, watchOS 8 or Linux. Foundation is all that it needs.\n\n" +
    how +
    (isReturned
      ? ""
      : `A call throws its own failures and no others. The compiler checks a \`switch\` over them:\n\n${codeBlock(
          "do {\n  let answer = try await connection.call()\n} catch {\n  switch error {\n  case .notFound(let failure): show(failure.body)\n  case .other(let failure): show(failure.mishap)\n  // and the other cases of the call\n  }\n}",
          "swift",
        )}\nIn a closure the type has to be named, or it is lost: \`do throws(CallFailure) { … }\`.\n\n`) +
    "What was proved by running it was proved on Linux. There a stream is not held back while nobody reads it, a subscription over WebSocket cannot tell an application's closing codes apart, and the platform itself ends the program over a `401` whose `WWW-Authenticate` is a single word.\n"
  );
}
