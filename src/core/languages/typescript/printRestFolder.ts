import type { CallFile } from "../../sdk/lower/callFiles.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import { restPage } from "../pages/callPages.js";
import { within, type RestContext } from "./contractContext.js";
import { header, moduleText } from "./moduleText.js";
import { ModuleUses } from "./moduleUses.js";
import { pageSpelling } from "./pageSpelling.js";
import { callSignature } from "./printCallFunction.js";
import { callsModule } from "./printCallsModule.js";
import type { GroupedCall } from "./printGrouped.js";
import { printRestCall } from "./printRestCall.js";
import { printSent } from "./printSent.js";

/** Prints the modules and pages of a REST contract's calls, by path, and how each call is offered behind a dot. */
export function printRestFolder(context: RestContext): { files: Map<string, string>; grouped: GroupedCall[] } {
  const files = new Map<string, string>();
  const byCall = new Map(context.contract.calls.map((lowered) => [lowered.call, lowered]));
  const grouped: GroupedCall[] = [];
  const spelling = pageSpelling(context);
  for (const file of context.contract.files) {
    const calls = file.calls.flatMap((call) => byCall.get(call) ?? []);
    files.set(`calls/${file.file}.ts`, callsText(calls, context));
    files.set(`calls/${file.file}.md`, restPage(file, context.contract, spelling));
    grouped.push(...calls.flatMap((lowered) => groupedCalls(lowered, file, context)));
  }
  const { sent } = context.contract.plan;
  if (sent.length > 0) {
    const uses = new ModuleUses();
    const { printer } = within(context, uses);
    const parts = sent.map((each) => printSent(each, printer));
    files.set("webhooks.ts", moduleText(header, uses.imports(context.ending, "."), parts));
  }
  return { files, grouped };
}

function callsText(calls: readonly LoweredCall[], context: RestContext): string {
  return callsModule(context, (inside) => calls.map((lowered) => printRestCall(lowered, inside)));
}

/** A call behind a dot, and its pages. */
function groupedCalls(lowered: LoweredCall, { file }: CallFile, context: RestContext): GroupedCall[] {
  const { call } = lowered;
  const names = context.names.rest(call);
  const { summary, description, deprecated } = call.operation;
  const common = { file, ...callSignature(lowered, context), deprecated };
  const types = [
    ...(call.arguments.length > 0 ? [names.args] : []),
    ...(call.answerChoices.length > 0 ? [names.answers] : []),
  ];
  const whole = { ...common, name: names.call, perform: names.perform, summary: summary ?? description, types };
  if (!call.paging) return [whole];
  const pages = `All items of all pages of \`${names.call}\`.`;
  return [whole, { ...common, name: names.items, perform: names.performItems, summary: pages, types: [] }];
}
