import { groupedBy } from "../../text/groupedBy.js";
import { apartFrom, importedAs } from "./apartFrom.js";
import { sortedBy } from "../../text/sortedBy.js";
import { within, type ContractContext } from "./contractContext.js";
import { header, moduleText, type Import } from "./moduleText.js";
import { ModuleUses } from "./moduleUses.js";
import { printCached } from "./described/printCached.js";
import { printChecks } from "./types/printChecks.js";
import { printConnect } from "./calls/printConnect.js";
import { printConversions } from "./types/printConversions.js";
import { printGrouped, type GroupedCall } from "./described/printGrouped.js";
import { printTypes } from "./types/printShapes.js";
import { printTesting } from "./testing/printTesting.js";

/** Prints the modules of a contract besides those of its calls, by path. Modules without content are left out. */
export function printCommonFiles(context: ContractContext, grouped: readonly GroupedCall[]): Map<string, string> {
  const files = new Map([
    ["shapes.ts", shapesModule(context)],
    ["conversions.ts", conversionsModule(context)],
    ["checks.ts", checksModule(context)],
    ["connect.ts", connectModule(context)],
    ["grouped.ts", groupedModule(context, grouped)],
    ["cached.ts", cachedModule(context)],
    ["testing.ts", testingModule(context, grouped)],
  ]);
  for (const [path, text] of files) if (text === "") files.delete(path);
  return files;
}

/** The types in the files of single calls, with the file of each. */
function ownedByCalls({ contract, names }: ContractContext): { readonly file: string; readonly type: string }[] {
  if (contract.protocol === "rest") return [];
  return contract.calls.flatMap(({ file, types }) =>
    types.map(({ id }) => ({ file, type: names.types.get(id) ?? "" })),
  );
}

function shapesModule(context: ContractContext): string {
  const { contract } = context;
  const owned = new Set(contract.protocol === "rest" ? [] : contract.calls.flatMap(({ types }) => types));
  const shared = [...contract.types.values()].filter((type) => !owned.has(type));
  if (shared.length === 0) return "";
  const uses = new ModuleUses();
  const types = printTypes(shared, within(context, uses).printer);
  // Types of the same module need no import.
  return moduleText(header, uses.namespaces(context.ending, "."), [types]);
}

function conversionsModule(context: ContractContext): string {
  const uses = wireUses();
  const text = printConversions(context.contract, within(context, uses).printer);
  return text === "" ? "" : moduleText(header, uses.namespaces(context.ending, "."), [text]);
}

function checksModule(context: ContractContext): string {
  const uses = wireUses();
  const text = printChecks(context.contract, within(context, uses).printer);
  return text === "" ? "" : moduleText(header, uses.namespaces(context.ending, "."), [text]);
}

function connectModule(context: ContractContext): string {
  const uses = wireUses();
  const text = printConnect(within(context, uses));
  return moduleText(header, uses.imports(context.ending, "."), [text]);
}

function groupedModule(context: ContractContext, grouped: readonly GroupedCall[]): string {
  if (grouped.length === 0) return "";
  const { ending, names } = context;
  const uses = new ModuleUses();
  uses.module("wire", false);
  const calls = sortedBy(grouped, ({ name }) => name);
  const callImports = [...groupedBy(calls, ({ file }) => file)].map(([file, here]): Import => ({
    from: `./calls/${file}${ending}`,
    types: here.flatMap(({ types }) => types),
    values: here.map(({ perform }) => importedAs(perform, apartFrom(perform, [names.contract.grouped]))),
  }));
  const connect: Import = { from: `./connect${ending}`, types: [names.contract.connection] };
  const imports = [...uses.imports(ending, "."), connect, ...callImports];
  const { connect: make } = names.contract;
  // Code without a bundler gets all calls, and the function that creates their connection, with one import.
  const handedOn = context.isTranspiled ? [`export { ${make} } from "./connect${ending}";`] : [];
  return moduleText(header, imports, [...handedOn, printGrouped(context, calls)]);
}

function cachedModule(context: ContractContext): string {
  const { contract, ending, names } = context;
  if (!contract.settings.cached || contract.calls.length === 0) return "";
  const uses = wireUses();
  const { text, imports } = printCached(within(context, uses));
  const owned = ownedByCalls(context);
  const callImports = imports.map(({ file, types, values }): Import => ({
    from: `./calls/${file}${ending}`,
    types: [...types, ...owned.flatMap((own) => (own.file === file && uses.types.has(own.type) ? [own.type] : []))],
    values,
  }));
  const connect: Import = { from: `./connect${ending}`, types: [names.contract.connection] };
  const shared = uses.without(owned.map(({ type }) => type)).imports(ending, ".");
  return moduleText(header, [connect, ...shared, ...callImports], [text]);
}

function testingModule(context: ContractContext, grouped: readonly GroupedCall[]): string {
  if (!context.contract.settings.testing) return "";
  const { ending, names } = context;
  const uses = wireUses();
  const { text, callTypes } = printTesting(within(context, uses));
  const owned = ownedByCalls(context);
  const callImports = [...groupedBy(grouped, ({ file }) => file)].map(([file, here]): Import => ({
    from: `./calls/${file}${ending}`,
    types: [
      ...here.flatMap(({ name }) => callTypes.get(name) ?? []),
      ...owned.flatMap((own) => (own.file === file && uses.types.has(own.type) ? [own.type] : [])),
    ],
  }));
  const { connection, options, connect } = names.contract;
  const connectImport: Import = { from: `./connect${ending}`, types: [connection, options], values: [connect] };
  const imports = uses.without(owned.map(({ type }) => type)).imports(ending, ".");
  return moduleText(header, [connectImport, ...imports, ...callImports], [text]);
}

function wireUses(): ModuleUses {
  const uses = new ModuleUses();
  uses.module("wire", true);
  return uses;
}
