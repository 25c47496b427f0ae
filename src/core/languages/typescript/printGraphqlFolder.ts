import { operationId } from "../../graphql/documents/operationId.js";
import type { LoweredGraphqlCall } from "../../sdk/lower/loweredSdk.js";
import { graphqlPage } from "../pages/callPages.js";
import { sentences } from "../../sdk/lower/sentences.js";
import { within, type GraphqlContext } from "./contractContext.js";
import { comment, propertyName } from "./names/escape.js";
import { header, moduleText, type Import } from "./moduleText.js";
import { ModuleUses } from "./moduleUses.js";
import { pageSpelling } from "./pageSpelling.js";
import { callsModule } from "./calls/printCallsModule.js";
import { printGraphqlCall, variablesType } from "./calls/printGraphqlCall.js";
import type { GroupedCall } from "./described/printGrouped.js";
import { printTypes } from "./types/printShapes.js";
import { printReference } from "./types/printType.js";
import type { TypescriptSettings } from "./settings.js";

/** The parts of an SDK besides its calls. */
export interface GraphqlFolderOptions {
  readonly settings: Pick<TypescriptSettings, "parsed" | "manifest" | "schema">;
  /** Returns the SHA-256 of a text in hexadecimal digits. Without it, operations have no ids. */
  readonly hash: ((text: string) => string) | undefined;
  /** The schema as text, if the SDK gets a copy. */
  readonly schema: string | undefined;
}

/**
 * Prints the modules and pages of a GraphQL contract's calls.
 *
 * @returns the files by path, and the calls for the object of all calls
 */
export function printGraphqlFolder(
  context: GraphqlContext,
  { settings, hash, schema }: GraphqlFolderOptions,
): { files: Map<string, string>; grouped: GroupedCall[] } {
  const { calls } = context.contract;
  const files = new Map<string, string>();
  const manifest: object[] = [];
  const spelling = pageSpelling(context);
  const isParsed = settings.parsed === true;
  for (const lowered of calls) {
    const { name, root: kind, text } = lowered.call.operation;
    const digest = settings.manifest === true ? hash?.(text) : undefined;
    const id = digest === undefined ? undefined : operationId(digest);
    if (id !== undefined) manifest.push({ name, kind, hash: id, text });
    const extras = { isParsed, ...(id === undefined ? {} : { id }) };
    const tree: Import[] = isParsed ? [{ from: "graphql", types: ["TypedQueryDocumentNode"] }] : [];
    const own = lowered.types.map((type) => context.names.types.get(type.id) ?? "");
    files.set(
      `calls/${lowered.file}.ts`,
      callsModule(
        context,
        (inside) => [printTypes(lowered.types, inside.printer), printGraphqlCall(lowered, inside, extras)],
        { types: own, imports: tree },
      ),
    );
    files.set(`calls/${lowered.file}.md`, graphqlPage(lowered, context.contract, spelling));
  }
  files.set("queries.ts", queriesModule(context));
  if (context.printer.sealed.size > 0) files.set("fragments.ts", fragmentsModule(context));
  if (settings.manifest === true)
    files.set("operations.json", `${JSON.stringify({ operations: manifest }, null, 2)}\n`);
  if (schema !== undefined) files.set("schema.graphql", schema);
  return { files, grouped: calls.map((lowered) => groupedCall(lowered, context)) };
}

/**
 * The function that marks queries in source. Bundlers drop calls of a function without effects, but not tagged
 * templates.
 */
function queriesModule({ contract, names }: GraphqlContext): string {
  const words = comment(sentences.queries(contract.plan.title));
  const mark = `export function ${names.contract.queries}(text: string): string {\n  return text;\n}\n`;
  return moduleText(header, [], [`${words}/* @__NO_SIDE_EFFECTS__ */\n${mark}`]);
}

/** The types of fragments by name, and the type of values with sealed fragments. */
function fragmentsModule(context: GraphqlContext): string {
  const uses = new ModuleUses();
  uses.module("wire", false);
  const { contract, ending, printer } = within(context, uses);
  const { fragments } = context.names.contract;
  const members = [...printer.sealed].map(
    ([name, reference]) => `  readonly ${propertyName(name)}: ${printReference(reference, printer, "exact")};\n`,
  );
  const map = `${comment(sentences.fragments(contract.plan.title))}export interface ${fragments} {\n${members.join("")}}\n`;
  const sealed = `${comment(sentences.sealedAs)}export type SealedAs<Name extends keyof ${fragments}> = wire.Sealed<Pick<${fragments}, Name>>;\n`;
  return moduleText(header, uses.imports(ending, "."), [map, sealed]);
}

function groupedCall(lowered: LoweredGraphqlCall, context: GraphqlContext): GroupedCall {
  const { call, file } = lowered;
  const names = context.names.graphql(call);
  return {
    file,
    name: names.call,
    perform: names.call,
    argsType: variablesType(lowered, names),
    argsNeeded: call.variables.some((field) => field.required),
    summary: call.operation.description,
    types: call.variables.length > 0 ? [names.variables] : [],
  };
}
