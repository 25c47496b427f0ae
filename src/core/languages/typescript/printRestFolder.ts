import { sentences } from "../../sdk/lower/sentences.js";
import type { LoweredCall } from "../../sdk/lower/loweredSdk.js";
import { restPage } from "../pages/callPages.js";
import { within, type RestContext } from "./contractContext.js";
import { header, moduleText } from "./moduleText.js";
import { ModuleUses } from "./moduleUses.js";
import { pageSpelling } from "./pageSpelling.js";
import { callSignature } from "./calls/printCallFunction.js";
import { callsModule } from "./calls/printCallsModule.js";
import type { GroupedCall } from "./described/printGrouped.js";
import { printRestCall } from "./calls/printRestCall.js";
import { printSent } from "./calls/printSent.js";

/**
 * Prints the modules and pages of a REST contract's calls.
 *
 * @returns the files by path, and the calls for the object of all calls
 */
export function printRestFolder(context: RestContext): { files: Map<string, string>; grouped: GroupedCall[] } {
  const files = new Map<string, string>();
  const grouped: GroupedCall[] = [];
  const spelling = pageSpelling(context);
  for (const file of context.contract.files) {
    files.set(`calls/${file.file}.ts`, callsText(file.calls, context));
    files.set(`calls/${file.file}.md`, restPage(file, context.contract, spelling));
    for (const lowered of file.calls) grouped.push(...groupedCalls(lowered, file.file, context));
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

/** A call in the object of all calls, and its pages. */
function groupedCalls(lowered: LoweredCall, file: string, context: RestContext): GroupedCall[] {
  const { call } = lowered;
  const names = context.names.rest(call);
  const { summary, description, deprecated } = call.operation;
  const { generics, argsType, argsNeeded } = callSignature(lowered, context);
  const types: string[] = [];
  if (call.arguments.length > 0) types.push(names.args);
  if (call.answerChoices.length > 0) types.push(names.answers);
  const signature = { file, generics, argsType, argsNeeded, deprecated };
  const calls: GroupedCall[] = [
    { ...signature, name: names.call, perform: names.perform, summary: summary ?? description, types },
  ];
  if (call.paging) {
    const all = sentences.allPages(names.call);
    calls.push({ ...signature, name: names.items, perform: names.performItems, summary: all, types: [] });
  }
  return calls;
}
