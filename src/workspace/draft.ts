import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import picomatch from "picomatch";
import type { GraphQLSchema } from "graphql";
import { draftDocuments, rootFields, type Draft } from "../core/graphql/documents/draftDocument.js";
import { readQueryDocuments } from "../core/graphql/documents/readQueryDocuments.js";
import { problem } from "../core/problem/problem.js";
import { didYouMean } from "../core/text/nearest.js";
import { kebabCase } from "../core/text/words.js";
import { ContractReader } from "./sources/contractReader.js";
import { exitCodes, Halt } from "./project/halt.js";
import { displayPath, isInside } from "./project/project.js";
import type { OpenedProject } from "./project/openProject.js";
import { ProjectTexts } from "./generate/sdkInputs.js";

/** The result of one draft. */
export interface WrittenDraft {
  readonly name: string;
  /** Its root field, as "Query.voyages". */
  readonly field: string;
  /** The path in the project. */
  readonly path: string;
  /** "there": a file with that name exists. "asked": a query document has an operation with that name. */
  readonly state: "written" | "there" | "asked";
}

export interface DraftOutcome {
  readonly drafts: readonly WrittenDraft[];
  readonly folder: string;
  /** The pattern that `queries` of the contract needs for the folder; undefined if one already matches. */
  readonly missingPattern: string | undefined;
}

export interface DraftRequest {
  /** Root fields; all if empty. */
  readonly fields: readonly string[];
  /** The number of levels of objects that are selected. */
  readonly depth: number;
  /** The output folder; undefined for the folder of the contract's queries. */
  readonly into: string | undefined;
}

/**
 * Writes a query document for each root field of a schema, without overwriting files.
 *
 * @throws Halt (usage) if the contract is not a schema, a field does not exist, or the folder is outside of the
 * project
 */
export async function draft(project: OpenedProject, contract: string, wanted: DraftRequest): Promise<DraftOutcome> {
  const texts = new ProjectTexts(project);
  await texts.readHosts([contract]);
  const { schema } = new ContractReader(texts).read(contract);
  if (!schema) {
    const message = `\`${contract}\` is a REST contract. Its operations become calls without query documents.`;
    throw new Halt(
      [problem("draft.rest", message, { hint: `\`rhema outline ${contract}\` lists them.` })],
      exitCodes.usage,
    );
  }
  assertRootFields(schema, contract, wanted.fields);
  const folder = folderFor(project, contract, wanted.into);
  const { operations } = readQueryDocuments(schema, texts.queries(contract).texts);
  const known = new Set(operations.map(({ name }) => name));
  const drafts = draftDocuments(schema, wanted).map((each): WrittenDraft => {
    const path = join(folder, `${kebabCase(each.name) || "draft"}.graphql`);
    const state = known.has(each.name) ? "asked" : existsSync(path) ? "there" : "written";
    if (state === "written") write(project, path, each);
    return { name: each.name, field: coordinate(schema, each), path: displayPath(project, path), state };
  });
  const patterns = project.configuration.contracts[contract]?.queries ?? [];
  const example = displayPath(project, join(folder, "draft.graphql"));
  const isCovered = patterns.some((pattern) => picomatch.isMatch(example, pattern.replace(/^\.\//, "")));
  const shown = displayPath(project, folder);
  return { drafts, folder: shown, missingPattern: isCovered ? undefined : `${shown}/**/*.graphql` };
}

function assertRootFields(schema: GraphQLSchema, contract: string, fields: readonly string[]): void {
  const known = rootFields(schema);
  const names = known.flatMap(({ type, field }) => [field, `${type.name}.${field}`]);
  const problems = fields
    .filter((field) => !names.includes(field))
    .map((field) =>
      problem("draft.field", `\`${field}\` is not a root field of \`${contract}\`.`, {
        hint: didYouMean(field, names) ?? `\`rhema outline ${contract}\` lists them.`,
      }),
    );
  if (problems.length > 0) throw new Halt(problems, exitCodes.usage);
}

function coordinate(schema: GraphQLSchema, { kind, field }: Draft): string {
  const found = rootFields(schema).find((each) => each.kind === kind && each.field === field);
  return `${found?.type.name ?? kind}.${field}`;
}

const usualFolder = "queries";

/** The given folder, that of the contract's first pattern for documents, or `queries`. */
function folderFor(project: OpenedProject, contract: string, into: string | undefined): string {
  const pattern = project.configuration.contracts[contract]?.queries?.find((each) =>
    /\.(?:graphql|gql)$|[{,](?:graphql|gql)[,}]/.test(each),
  );
  const base = pattern === undefined ? usualFolder : picomatch.scan(pattern.replace(/^\.\//, "")).base;
  const chosen = into ?? (/\.(graphql|gql)$/.test(base) ? dirname(base) : beside(base));
  const folder = resolve(project.root, chosen === "" ? "." : chosen);
  if (folder !== project.root && !isInside(project.root, folder)) {
    const message = `Drafts would be written to \`${chosen}\`, which is not inside the project.`;
    throw new Halt([problem("path.outside", message, { hint: "Choose a folder below it." })], exitCodes.usage);
  }
  return folder;
}

/** In a source folder, documents get a folder of their own. */
function beside(base: string): string {
  if (base === "") return usualFolder;
  return /^(?:src|app|source|lib|client|web|frontend)$/.test(base) ? `${base}/${usualFolder}` : base;
}

function write(project: OpenedProject, path: string, { text }: Draft): void {
  try {
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(path, text, { flag: "wx" });
  } catch {
    const message = `\`${displayPath(project, path)}\` cannot be written.`;
    throw new Halt(
      [problem("output.unwritable", message, { hint: "Check the permissions of the folder." })],
      exitCodes.usage,
    );
  }
}
