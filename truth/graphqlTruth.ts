import { print, type GraphQLSchema } from "graphql";
import type ts from "typescript";
import { compareGraphql } from "../src/core/change/compare/compareGraphql.js";
import { compareGraphqlNames } from "../src/core/change/compare/compareGraphqlNames.js";
import { judgeUse } from "../src/core/change/judge/impact.js";
import type { GraphqlContract } from "../src/core/contract/model.js";
import { readGraphqlContract } from "../src/core/graphql/readGraphqlContract.js";
import { readQueryDocuments, type QueryReading } from "../src/core/graphql/documents/readQueryDocuments.js";
import { printTypescriptSdk } from "../test/support/typescriptSdk.js";
import { typescriptFacts } from "../test/support/typescriptSdk.js";
import type { TypescriptSettings } from "../src/core/languages/typescript/settings.js";
import type { GraphqlPlan } from "../src/core/sdk/sdkPlan.js";
import { planGraphql } from "../src/core/sdk/planGraphql.js";
import { Randomness } from "../test/proof/random/randomness.js";
import { appInUse } from "./appInUse.js";
import { exercisingApp, type ExercisingApp } from "./exercise.js";
import { brokenOperations } from "./graphqlApps.js";
import { graphqlEdits, schemaTree } from "./graphqlEdits.js";
import { factOf, refusalsTold } from "./refusals.js";
import { programOf, refusedLines } from "./program.js";
import { ProjectOnDisk } from "./projectOnDisk.js";
import { type AppCase, type Case } from "./truth.js";

const name = "fleet";

interface Side {
  readonly contract: GraphqlContract;
  readonly schema: GraphQLSchema;
  readonly queries: QueryReading;
}

/** One GraphQL schema with query documents and an app that uses everything in them. */
export class GraphqlTruth {
  private readonly before: Side;
  private readonly app: ExercisingApp;
  private program: ts.Program;
  private readonly project: ProjectOnDisk;

  constructor(
    readonly base: string,
    private readonly schema: string,
    private readonly documents: readonly string[],
    private readonly runtime: ReadonlyMap<string, string>,
    private readonly settings: Omit<TypescriptSettings, "imports">,
    root: string,
  ) {
    this.before = this.read(schema);
    const errors = this.before.queries.problems.filter(({ level }) => level === "error");
    if (errors.length > 0) throw new Error(errors.map(({ message }) => message).join("\n"));
    this.program = programOf(this.files(this.before));
    const fragments = this.before.queries.fragments.map((each) => each.name);
    const named = new Set([...this.before.contract.types.keys(), ...fragments.map((each) => `${each}Part`)]);
    this.app = exercisingApp(
      this.program,
      `sdk/${name}/index.ts`,
      (type) => named.has(type),
      settings.unions === "open",
    );
    const refused = this.refused(this.before);
    const scalars = Object.fromEntries(scalarsOf(this.before.contract).map((key) => [key, { typescript: "string" }]));
    this.project = new ProjectOnDisk({
      root,
      configuration: {
        contracts: { [name]: { from: "schema.graphql", queries: ["queries/*.graphql"], scalars } },
        sdks: { app: { language: "typescript", covers: [name], into: "src/sdk", settings } },
      },
      files: {
        "schema.graphql": schema,
        ...Object.fromEntries(documents.map((text, at) => [`queries/q${String(at)}.graphql`, text])),
      },
    });
    if (refused.size > 0)
      throw new Error(`The app does not compile before: ${refusalsTold(this.app, refused).slice(0, 5).join("\n")}`);
    const broken = brokenOperations(this.before.queries.operations, this.before.schema, this.before.schema, 1);
    if (broken.length > 0) throw new Error(`The released app does not work before: ${broken.join("\n")}`);
  }

  /** Writes the SDK of the app that uses little. */
  prepare(): Promise<void> {
    return this.project.generate();
  }

  get lines(): number {
    return this.app.lines.size;
  }

  /** Applies an edit of each kind, one after the other, and returns the prediction and the facts. */
  async judge(kinds: readonly string[], seed: number, withApp: boolean): Promise<Case | undefined> {
    const tree = schemaTree(this.schema);
    const random = new Randomness(seed);
    const edits = kinds.flatMap((kind) => graphqlEdits.find((edit) => edit.kind === kind) ?? []);
    const done = edits.filter((edit) => edit.apply(tree, random));
    if (done.length === 0) return undefined;
    const after = this.read(print(tree as never));
    // Nobody publishes an edit that makes the schema invalid.
    if (after.contract.setAside.length > 0) return undefined;
    const uses = { queries: this.before.queries.uses, searched: true };
    const all = compareGraphql(this.before.contract, after.contract, typescriptFacts(this.settings));
    const changes = judgeUse(all, "graphql", uses).filter(({ use }) => use === "used");
    changes.push(
      ...compareGraphqlNames(
        { contract: this.before.contract, plan: this.plan(this.before) },
        { contract: after.contract, plan: this.plan(after) },
        typescriptFacts(this.settings),
      )
        .filter(({ isUnpromised }) => isUnpromised !== true)
        .map(({ sdks: _sdks, ...change }) => ({ ...change, use: "used" as const, hits: [] })),
    );
    const isMeaningless = done.every((each) => each.isMeaningless === true);
    const refused = this.refused(after);
    const open = this.settings.unions === "open";
    const broken = brokenOperations(this.before.queries.operations, this.before.schema, after.schema, seed, {
      openUnions: open,
      openChoices: this.settings.choices === "open",
    });
    const inUse = withApp
      ? await this.judgeInUse({ text: print(tree as never), after, broken }, [...refused.keys()], seed)
      : undefined;
    return {
      inUse,
      base: this.base,
      seed,
      kinds: done.map(({ kind }) => kind),
      isMeaningless,
      changes: isMeaningless ? all : changes,
      facts: { code: factOf(this.app, refused), apps: broken.length > 0 ? "breaking" : "compatible" },
      evidence: { code: refusalsTold(this.app, refused), apps: broken },
    };
  }

  private async judgeInUse(
    { text, after, broken }: { readonly text: string; readonly after: Side; readonly broken: readonly string[] },
    lines: readonly number[],
    seed: number,
  ): Promise<AppCase> {
    const changed = {
      everything: this.app,
      project: this.project,
      name,
      before: this.files(this.before),
      after: this.files(after),
      changed: { "schema.graphql": text },
      lines,
      seed,
    };
    const judged = await appInUse(changed, () => Promise.resolve(broken));
    // A refused query is not in the SDK.
    return { ...judged, breaks: { ...judged.breaks, code: judged.breaks.code === true || isRefused(after) } };
  }

  private read(text: string): Side {
    const reading = readGraphqlContract(name, [{ document: "schema.graphql", text }]);
    if (!reading.contract || !reading.schema)
      throw new Error(reading.problems.map(({ message }) => message).join("; "));
    const texts = this.documents.map((each, at) => ({ document: `q${String(at)}.graphql`, text: each }));
    return { contract: reading.contract, schema: reading.schema, queries: readQueryDocuments(reading.schema, texts) };
  }

  private refused(side: Side): Map<number, string[]> {
    this.program = programOf(new Map([...this.files(side), ["app.ts", this.app.text]]), this.program);
    return refusedLines(this.program, "app.ts");
  }

  private plan({ contract, queries }: Side): GraphqlPlan {
    const scalars = new Map(scalarsOf(contract).map((key) => [key, {}]));
    const { unions } = this.settings;
    return planGraphql(contract, queries, { scalars, ...(unions ? { unions } : {}) });
  }

  private files(side: Side): Map<string, string> {
    const plan = this.plan(side);
    const sdk = printTypescriptSdk(
      { name: "sdk", contracts: [plan] },
      {
        runtime: this.runtime,
        scalars: new Map([[name, new Map(scalarsOf(side.contract).map((key) => [key, "string"]))]]),
        settings: this.settings,
      },
    );
    return new Map([...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]));
  }
}

function isRefused({ queries }: Side): boolean {
  return queries.problems.some(({ level }) => level === "error");
}

function scalarsOf(contract: GraphqlContract): string[] {
  return [...contract.types.values()].filter(({ role }) => role === "scalar").map(({ key }) => key);
}
