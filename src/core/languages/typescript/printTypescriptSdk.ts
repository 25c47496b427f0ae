import { operationId } from "../../graphql/operationId.js";
import type { ContractPlan, GraphqlPlan, RestPlan, SdkPlan } from "../../sdk/sdkPlan.js";
import { groupedBy } from "../../text/groupedBy.js";
import { sortedBy } from "../../text/sortedBy.js";
import { contractNames, typeNames } from "./identifiers.js";
import { groupFile } from "./markdown.js";
import { moduleText, type Import } from "./moduleText.js";
import { printChecks } from "./printChecks.js";
import { printConnect } from "./printConnect.js";
import { graphqlCallFiles, graphqlCallNames, hasFiles, printGraphqlCall } from "./printGraphqlCall.js";
import { printGrouped, type GroupedCall } from "./printGrouped.js";
import { printGraphqlPage, printRestPage } from "./printCallPages.js";
import { printReadme } from "./printReadme.js";
import { groupedSignature, printRestCall, restCallNames, runtimeFilesOf } from "./printRestCall.js";
import { printSent } from "./printSent.js";
import { convertedTypes, printConversions } from "./printConversions.js";
import {
  formatsOf,
  printFormats,
  usesCheck,
  usesConversion,
  usesFormats,
  usesFormatValues,
  usesWire,
} from "./formats.js";
import { printTesting } from "./printTesting.js";
import { printTypes } from "./printShapes.js";
import type { TypePrinter } from "./printType.js";
import type { TypescriptFacts } from "./settings.js";

const header =
  "// Written by rhema generate. Changes made here are lost; change the contract or the query documents instead.";

/** Prints an SDK plan as TypeScript: the text of every file by its path inside the SDK's folder. */
export function printTypescriptSdk(plan: SdkPlan, facts: TypescriptFacts): Map<string, string> {
  const files = new Map<string, string>();
  const printers = new Map<string, TypePrinter>();
  const runtimeFiles = new Set<string>();
  for (const contract of plan.contracts) {
    const used = new Set<string>();
    const formats = formatsOf(facts.settings);
    const printer: TypePrinter = {
      types: contract.types,
      names: typeNames(contract),
      scalars: facts.scalars.get(contract.name) ?? new Map<string, string>(),
      formats,
      converted: convertedTypes(contract.types, { formats }),
      returnsFailures: facts.settings?.failures === "return",
      verifies: contract.protocol === "rest" && facts.settings?.verify === "answers",
      hasWholeFiles: contract.protocol === "graphql",
      ...(contract.protocol === "graphql" && facts.settings?.fragments === "sealed"
        ? { sealed: new Map(contract.fragments.map(({ fragment, reference }) => [fragment, reference])) }
        : {}),
      onUse: (identifier) => used.add(identifier),
    };
    printers.set(contract.name, printer);
    const context = {
      printer,
      ending: facts.importEnding === "js" ? ".js" : "",
      used,
      testing: facts.settings?.testing === true,
    };
    const folder =
      contract.protocol === "rest" ? printRestFolder(contract, context) : printGraphqlFolder(contract, context, facts);
    for (const [path, text] of folder.files) files.set(`${contract.name}/${path}`, text);
    for (const file of folder.runtimeFiles) runtimeFiles.add(file);
  }
  const ending = facts.importEnding === "js" ? ".js" : "";
  const formats = printFormats(formatsOf(facts.settings), `./wire/index${ending}`);
  if (formats !== "") files.set("formats.ts", `${header}\n\n${formats}`);
  for (const [path, text] of printRuntime(runtimeFiles, facts)) files.set(`wire/${path}`, text);
  files.set("README.md", printReadme(plan, printers));
  return new Map(sortedBy(files, ([path]) => path));
}

interface FolderContext {
  readonly printer: TypePrinter;
  readonly ending: string;
  /** Identifiers of planned types named since it was last cleared. */
  readonly used: Set<string>;
  /** Asks for the module for tests. */
  readonly testing: boolean;
}

interface PrintedFolder {
  readonly files: ReadonlyMap<string, string>;
  readonly runtimeFiles: readonly string[];
}

const plainRestFiles = [
  "auth.ts",
  "authorized.ts",
  "bodies.ts",
  "connection.ts",
  "excerpt.ts",
  "exchange.ts",
  "redirects.ts",
  "failure.ts",
  "layers.ts",
  "parameters.ts",
  "problem.ts",
  "send.ts",
];
const plainGraphqlFiles = [
  "auth.ts",
  "authorized.ts",
  "bodies.ts",
  "connection.ts",
  "events.ts",
  "excerpt.ts",
  "exchange.ts",
  "redirects.ts",
  "failure.ts",
  "graphql.ts",
  "layers.ts",
  "pause.ts",
  "predicted.ts",
  "sealed.ts",
  "subscribe.ts",
];

function printRestFolder(plan: RestPlan, context: FolderContext): PrintedFolder {
  const files = new Map<string, string>();
  const fileByGroup = new Map(
    [...new Set(plan.calls.map((call) => call.group))].map((each) => [each, groupFile(each)]),
  );
  const byGroup = groupedBy(plan.calls, (call) => fileByGroup.get(call.group) ?? "");
  const grouped: (GroupedCall & { file: string; types: string[] })[] = [];
  for (const [group, calls] of sortedBy(byGroup, ([name]) => name)) {
    context.used.clear();
    const parts = calls.map((call) => printRestCall(call, plan, context.printer));
    files.set(`calls/${group}.ts`, callsModule(plan, context, parts));
    files.set(`calls/${group}.md`, printRestPage(plan, calls, context.printer));
    for (const call of calls) {
      const names = restCallNames(call);
      const hasArgs = call.arguments.length > 0;
      grouped.push({
        name: names.call,
        perform: names.perform,
        ...groupedSignature(call),
        summary: call.operation.summary ?? call.operation.description,
        deprecated: call.operation.deprecated,
        file: group,
        types: [...(hasArgs ? [names.args] : []), ...(call.answerChoices.length > 0 ? [names.answers] : [])],
      });
      if (call.paging)
        grouped.push({
          name: names.items,
          perform: names.performItems,
          ...groupedSignature(call),
          summary: `All items of all pages of \`${names.call}\`.`,
          deprecated: call.operation.deprecated,
          file: group,
          types: [],
        });
    }
  }
  if (plan.sent.length > 0) {
    context.used.clear();
    const parts = plan.sent.map((each) => printSent(each, context.printer));
    files.set("webhooks.ts", moduleText(header, usedImports(context, "."), parts));
  }
  addCommonFiles(files, plan, context, grouped);
  const hasServers =
    plan.calls.some((call) => call.operation.servers.length > 0) || (plan.servers[0]?.variables.size ?? 0) > 0;
  const servers = hasServers ? ["servers.ts"] : [];
  return {
    files,
    runtimeFiles: [
      ...plainRestFiles,
      ...filesOfConversions(context.printer),
      ...servers,
      ...filesOfSettings(context),
      ...plan.calls.flatMap(runtimeFilesOf),
    ],
  };
}

function printGraphqlFolder(plan: GraphqlPlan, context: FolderContext, facts: TypescriptFacts): PrintedFolder {
  const { settings = {}, hash } = facts;
  const manifest: object[] = [];
  const files = new Map<string, string>();
  const grouped: (GroupedCall & { file: string; types: string[] })[] = [];
  const owned = ownedTypes(plan);
  const fileByCall = graphqlCallFiles(plan);
  for (const call of plan.calls) {
    const names = graphqlCallNames(call);
    const file = fileByCall.get(call.name) ?? "";
    context.used.clear();
    const types = [...plan.types.values()].filter((type) => owned.get(type.id) === call.name);
    const own = new Set(types.map((type) => context.printer.names.get(type.id) ?? ""));
    const { name, root: kind, text } = call.operation;
    const digest = settings.manifest === true ? hash?.(text) : undefined;
    const id = digest === undefined ? undefined : operationId(digest);
    if (id !== undefined) manifest.push({ name, kind, hash: id, text });
    const isParsed = settings.parsed === true;
    const extras = { isParsed, ...(id === undefined ? {} : { id }) };
    const parts = [printTypes(types, context.printer), printGraphqlCall(call, plan, context.printer, extras)];
    for (const identifier of own) context.used.delete(identifier);
    const tree: Import[] = isParsed ? [{ from: "graphql", types: ["TypedQueryDocumentNode"] }] : [];
    files.set(`calls/${file}.ts`, callsModule(plan, context, parts, tree));
    files.set(`calls/${file}.md`, printGraphqlPage(plan, call, context.printer));
    grouped.push({
      name: names.call,
      perform: names.call,
      argsType: call.variables.length > 0 ? names.variables : "wire.NoArguments",
      argsNeeded: call.variables.some((field) => field.required),
      summary: call.operation.description,
      file,
      types: call.variables.length > 0 ? [names.variables] : [],
    });
  }
  if (settings.manifest === true)
    files.set("operations.json", `${JSON.stringify({ operations: manifest }, null, 2)}\n`);
  const schema = facts.schemas?.get(plan.name);
  if (schema !== undefined) files.set("schema.graphql", schema);
  const fileByType = new Map([...owned].map(([id, call]) => [id, fileByCall.get(call) ?? ""]));
  addCommonFiles(files, plan, context, grouped, fileByType);
  const { printer } = context;
  const runtimeFiles = [
    ...plainGraphqlFiles,
    ...filesOfSettings(context),
    ...filesOfConversions(printer),
    ...(plan.calls.some((call) => call.operation.root === "subscription") ? ["websocket.ts"] : []),
    ...(plan.calls.some((call) => hasFiles(call, printer)) ? ["uploads.ts", "progress.ts"] : []),
    ...(settings.unions === "open" ? ["newerType.ts"] : []),
  ];
  return { files, runtimeFiles };
}

/** Runtime files that settings ask for. */
function filesOfSettings({ printer, testing }: FolderContext): string[] {
  return [
    ...(printer.returnsFailures ? ["outcome.ts"] : []),
    ...(testing ? ["fakes.ts"] : []),
    ...(printer.verifies ? ["checks.ts"] : []),
  ];
}

function filesOfConversions({ formats: { dates, int64, own } }: TypePrinter): string[] {
  return [
    ...(dates || int64 !== "number" || own.size > 0 ? ["conversions.ts"] : []),
    ...(int64 === "number" ? [] : ["integers.ts"]),
  ];
}

/** The call that each inline type belongs to, by type id; named types of the schema and fragments' parts are shared. */
function ownedTypes(plan: GraphqlPlan): Map<string, string> {
  const owners = new Map<string, string>();
  const claim = (id: string, owner: string): void => {
    const type = plan.types.get(id);
    if (!type || owners.has(id) || !id.startsWith("inline ")) return;
    owners.set(id, owner);
    const open = [type.shape];
    for (let shape = open.pop(); shape; shape = open.pop()) {
      if (shape.kind === "named") claim(shape.key, owner);
      else if (shape.kind === "record") open.push(...shape.fields.map((field) => field.type.shape));
      else if (shape.kind === "list") open.push(shape.item.shape);
      else if (shape.kind === "union") open.push(...shape.members.map((member) => member.shape));
    }
  };
  for (const call of plan.calls)
    for (const { shape } of [call.answer, ...(call.whole ? [call.whole] : [])])
      if (shape.kind === "named") claim(shape.key, call.name);
  return owners;
}

function callsModule(
  plan: ContractPlan,
  context: FolderContext,
  parts: readonly string[],
  more: readonly Import[] = [],
): string {
  const names = contractNames(plan.name);
  const imports: Import[] = [
    { from: `../../wire/index${context.ending}`, namespace: "wire" },
    { from: `../connect${context.ending}`, types: [names.connection] },
    ...usedImports(context, ".."),
    ...more,
  ];
  return moduleText(header, imports, parts);
}

/** Imports of what was named since it was last cleared; `up` leads to the contract's folder. */
function usedImports({ used, ending }: FolderContext, up: "." | ".."): Import[] {
  const types = [...used].filter((each) => !each.startsWith(" "));
  const hasFormats = used.has(usesFormats) || used.has(usesFormatValues);
  const root = up === "." ? ".." : "../..";
  return [
    ...(types.length > 0 ? [{ from: `${up}/shapes${ending}`, types }] : []),
    ...(used.has(usesConversion) ? [{ from: `${up}/conversions${ending}`, namespace: "conversions" }] : []),
    ...(used.has(usesCheck) ? [{ from: `${up}/checks${ending}`, namespace: "checks" }] : []),
    ...(hasFormats
      ? [{ from: `${root}/formats${ending}`, namespace: "formats", namespaceIsType: !used.has(usesFormatValues) }]
      : []),
  ];
}

function addCommonFiles(
  files: Map<string, string>,
  plan: ContractPlan,
  context: FolderContext,
  grouped: readonly (GroupedCall & { file: string; types: string[] })[],
  fileByType: ReadonlyMap<string, string> = new Map(),
): void {
  const { ending, printer, used } = context;
  const shared = [...plan.types.values()].filter((type) => !fileByType.has(type.id));
  used.clear();
  if (shared.length > 0) {
    const types = printTypes(shared, printer);
    // The types of the same module need no import.
    const imports = usedImports(context, ".").filter((each) => each.namespace !== undefined);
    const wire: Import[] = used.has(usesWire)
      ? [{ from: `../wire/index${ending}`, namespace: "wire", namespaceIsType: true }]
      : [];
    files.set("shapes.ts", moduleText(header, [...wire, ...imports], [types]));
  }
  used.clear();
  const conversions = printConversions(plan.types, printer);
  if (conversions !== "") {
    const imports = usedImports(context, ".").filter((each) => each.namespace !== undefined);
    const wire: Import = { from: `../wire/index${ending}`, namespace: "wire" };
    files.set("conversions.ts", moduleText(header, [wire, ...imports], [conversions]));
  }
  if (printer.verifies) {
    used.clear();
    const checks = printChecks(plan.types, printer);
    const wire: Import = { from: `../wire/index${ending}`, namespace: "wire" };
    if (checks !== "") files.set("checks.ts", moduleText(header, [wire], [checks]));
  }
  used.clear();
  const connect = printConnect(plan, printer);
  const shapeImports = usedImports(context, ".");
  files.set(
    "connect.ts",
    moduleText(header, [{ from: `../wire/index${ending}`, namespace: "wire" }, ...shapeImports], [connect]),
  );
  const calls = sortedBy(grouped, (call) => call.name);
  const callImports = sortedBy(
    groupedBy(calls, (call) => call.file),
    ([file]) => file,
  ).map(([file, here]): Import => ({
    from: `./calls/${file}${ending}`,
    types: here.flatMap((call) => call.types),
    values: here.map((call) => call.perform),
  }));
  const names = contractNames(plan.name);
  if (calls.length > 0) {
    files.set(
      "grouped.ts",
      moduleText(
        header,
        [
          { from: `../wire/index${ending}`, namespace: "wire", namespaceIsType: true },
          { from: `./connect${ending}`, types: [names.connection] },
          ...callImports,
        ],
        [printGrouped(plan, calls)],
      ),
    );
  }
  if (context.testing) {
    used.clear();
    const { text, callTypes } = printTesting(plan, printer);
    const ownTypes = [...fileByType].map(([id, file]) => ({ file, type: printer.names.get(id) ?? "" }));
    const testImports = sortedBy(new Set(grouped.map((call) => call.file)), (file) => file).map((file): Import => ({
      from: `./calls/${file}${ending}`,
      types: [
        ...grouped.flatMap((call) => (call.file === file ? (callTypes.get(call.name) ?? []) : [])),
        ...ownTypes.flatMap((own) => (own.file === file && used.has(own.type) ? [own.type] : [])),
      ],
    }));
    for (const { type } of ownTypes) used.delete(type);
    const connectImport: Import = {
      from: `./connect${ending}`,
      types: [names.connection, names.options],
      values: [names.connect],
    };
    const wire: Import = { from: `../wire/index${ending}`, namespace: "wire" };
    files.set(
      "testing.ts",
      moduleText(header, [wire, connectImport, ...usedImports(context, "."), ...testImports], [text]),
    );
  }
  const modules = sortedBy(
    [...files.keys()].filter(
      (path) => path.endsWith(".ts") && !["grouped.ts", "testing.ts", "checks.ts", "conversions.ts"].includes(path),
    ),
    (path) => path,
  );
  files.set(
    "index.ts",
    moduleText(
      header,
      [],
      [
        modules
          .map(
            (path) =>
              `export ${path === "shapes.ts" || path === "webhooks.ts" ? "type " : ""}* from "./${path.replace(/\.ts$/, "")}${ending}";`,
          )
          .join("\n"),
      ],
    ),
  );
}

function printRuntime(wanted: ReadonlySet<string>, facts: TypescriptFacts): Map<string, string> {
  const files = new Map<string, string>();
  for (const file of wanted) {
    const source = facts.runtime.get(file);
    if (source === undefined) throw new Error(`The runtime file ${file} is missing from the installation.`);
    const text = source.replace(/\r\n/g, "\n");
    files.set(file, facts.importEnding === "js" ? text : text.replace(/(from "\.[^"]*)\.js"/g, '$1"'));
  }
  const ending = facts.importEnding === "js" ? ".js" : "";
  const lines = sortedBy(files.keys(), (path) => path).map(
    (path) => `export * from "./${path.replace(/\.ts$/, "")}${ending}";`,
  );
  files.set("index.ts", moduleText(header, [], [lines.join("\n")]));
  return files;
}
