import { operationLabel, type Reference } from "../../contract/model.js";
import { memberNameFrom } from "../../sdk/nameScope.js";
import type { ContractPlan, GraphqlPlan, RestPlan, SdkPlan } from "../../sdk/sdkPlan.js";
import { sortedBy } from "../../text/sortedBy.js";
import { propertyName, quoted } from "./escape.js";
import { contractNames } from "./identifiers.js";
import { defaultUrl } from "./printConnect.js";
import { graphqlCallNames } from "./printGraphqlCall.js";
import { answerType, isStreaming, restCallNames } from "./printRestCall.js";
import { printReference, type TypePrinter } from "./printType.js";
import { sampleOf } from "./sampleValue.js";

/** Prints the SDK's README: how to connect, and every call with a sample. */
export function printReadme(plan: SdkPlan, printers: ReadonlyMap<string, TypePrinter>): string {
  const parts = plan.contracts.map((contract) => {
    const printer = printers.get(contract.name);
    return printer ? contractPart(contract, printer) : "";
  });
  return (
    `# SDK ${plan.name}\n\nWritten by \`rhema generate\`; the next run replaces it. Import what you need from a contract's \`index\`:\n` +
    `each call is a function of its own that takes a connection first, so an app ships only the calls it imports.\n\n${parts.join("\n")}`
  );
}

function contractPart(plan: ContractPlan, printer: TypePrinter): string {
  const names = contractNames(plan.name);
  const rows = plan.protocol === "rest" ? restRows(plan, printer) : graphqlRows(plan, printer);
  const version = plan.version === "" ? "" : ` ${oneLine(plan.version)}`;
  return (
    `## ${oneLine(plan.title)}${version}\n\n${code(connectSample(plan, printer))}\n` +
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
function restRows(plan: RestPlan, printer: TypePrinter): string[] {
  const groups = sortedBy(new Set(plan.calls.map((call) => call.group)), (group) => group);
  return groups.flatMap((group) => {
    const tag = plan.tags.get(group);
    const words = oneLine(tag?.summary ?? tag?.description ?? "");
    const heading = `### ${[...ancestors(group, plan.tags), group].map(oneLine).join(" / ")}\n${words === "" ? "" : `\n${words}\n`}`;
    return [
      heading,
      ...callRows(
        plan.calls.filter((call) => call.group === group),
        printer,
      ),
    ];
  });
}

/** The tags that a tag stands below, outermost first; a circle of parents ends where it closes. */
function ancestors(tag: string, tags: RestPlan["tags"]): string[] {
  const found: string[] = [];
  for (let parent = tags.get(tag)?.parent; parent !== undefined; parent = tags.get(parent)?.parent) {
    if (parent === tag || found.includes(parent)) break;
    found.unshift(parent);
  }
  return found;
}

function callRows(calls: RestPlan["calls"], printer: TypePrinter): string[] {
  return calls.map((call) => {
    const names = restCallNames(call);
    const required = call.arguments.filter((argument) => argument.required);
    const given = sampleArguments(required, names.args, printer);
    const optional = call.arguments.filter((argument) => !argument.required).map((argument) => `\`${argument.name}\``);
    const failures = call.failures.map((failure) => failure.status).join(", ");
    const notes = [
      `\`${operationLabel(call.operation).replaceAll("`", "'")}\` answers \`${answerType(call, printer)}\`${isStreaming(call) ? ", item by item" : ""}`,
      ...(failures === "" ? [] : [`fails with ${failures}`]),
      ...(optional.length > 0 ? [`also takes ${optional.join(", ")}`] : []),
    ];
    const summary = oneLine(call.operation.summary ?? call.operation.description ?? "");
    const sample = isStreaming(call)
      ? `${given.before}for await (const item of ${names.call}(connection${given.text})) console.log(item);`
      : `${given.before}await ${names.call}(connection${given.text});`;
    return `#### ${names.call}\n\n${call.operation.deprecated === undefined ? "" : "**Deprecated.** "}${summary === "" ? "" : `${summary}\n\n`}${notes.join("; ")}.\n\n${code(sample)}`;
  });
}

/** The arguments of a sample call, and what has to stand before it when they are too large to be written out. */
function sampleArguments(
  required: readonly { readonly name: string; readonly type: Reference }[],
  typeName: string,
  printer: TypePrinter,
): { before: string; text: string } {
  if (required.length === 0) return { before: "", text: "" };
  const parts = required.map(({ name, type }) => ({ name, sample: sampleOf(type, printer) }));
  if (parts.some(({ sample }) => sample === undefined))
    return { before: `declare const args: ${typeName};\n`, text: ", args" };
  return {
    before: "",
    text: `, { ${parts.map(({ name, sample }) => `${propertyName(name)}: ${sample ?? ""}`).join(", ")} }`,
  };
}

function graphqlRows(plan: GraphqlPlan, printer: TypePrinter): string[] {
  return plan.calls.map((call) => {
    const names = graphqlCallNames(call);
    const given = sampleArguments(
      call.variables.filter((field) => field.required),
      names.variables,
      printer,
    );
    const sample =
      call.operation.root === "subscription"
        ? `${given.before}for await (const answer of ${names.call}(connection${given.text})) console.log(answer);`
        : `${given.before}await ${names.call}(connection${given.text});`;
    const summary = oneLine(call.operation.description ?? "");
    return `### ${names.call}\n\n${summary === "" ? "" : `${summary}\n\n`}The ${call.operation.root} \`${call.operation.name}\` answers \`${printReference(call.answer, printer, "exact")}\`.\n\n${code(sample)}`;
  });
}

function code(text: string): string {
  return `\`\`\`ts\n${text}\n\`\`\`\n`;
}

/** Contract text on one line of Markdown: nothing in it can open HTML, a code span or a new block. */
function oneLine(text: string): string {
  if (/^[\w .,;:'()-]*$/.test(text)) return text.replaceAll("_", "\\_");
  const [first = ""] = text.trim().split(/\n\s*\n/);
  return first
    .replace(/\s+/g, " ")
    .replace(/[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u202a-\u202e\u2060-\u2069]/g, "")
    .replace(/[\\`*_[\]<>|#]/g, "\\$&");
}
