import type ts from "typescript";
import { compareRest } from "../src/core/change/compare/compareRest.js";
import type { Change } from "../src/core/change/change.js";
import { judgeUse } from "../src/core/change/judge/impact.js";
import { compileErrors } from "../src/workspace/languages/typescript/compileErrors.js";
import { explainError } from "../src/core/change/judge/explainErrors.js";
import type { SourceUse } from "../src/core/use/sourceUse.js";
import { sourceUses } from "../src/workspace/languages/typescript/sourceUses.js";
import type { RestContract } from "../src/core/contract/model.js";
import { printTypescriptSdk } from "../test/support/typescriptSdk.js";
import { operationNames } from "../src/core/languages/typescript/names/contractNaming.js";
import { typescriptFacts } from "../test/support/typescriptSdk.js";
import type { TypescriptSettings } from "../src/core/languages/typescript/settings.js";
import { readContract } from "../src/core/readContract.js";
import { planRest, type RestSettings } from "../src/core/sdk/planRest.js";
import type { Json } from "../test/proof/random/makeSchema.js";
import { Randomness } from "../test/proof/random/randomness.js";
import { appInUse } from "./appInUse.js";
import { exercisingApp, type ExercisingApp } from "./exercise.js";
import { ReleasedApp } from "./restApps.js";
import { factOf, refusalsTold } from "./refusals.js";
import { folder, programOf, refusedLines } from "./program.js";
import { ProjectOnDisk } from "./projectOnDisk.js";
import { restEdits, type Edit } from "./restEdits.js";
import { type AppCase, type Blame, type Case } from "./truth.js";

const name = "shop";
const documents = new Map([[`${folder}/app.ts`, { document: "app.ts" }]]);

/** One REST contract with an app that uses everything in it, to be changed in many ways. */
export class RestTruth {
  private readonly before: RestContract;
  private readonly app: ExercisingApp;
  private program: ts.Program;
  private readonly settings: Omit<TypescriptSettings, "imports">;
  private readonly uses: readonly SourceUse[];
  private released: ReleasedApp | undefined;
  private readonly project: ProjectOnDisk;
  private readonly rest: Pick<RestSettings, "pages">;

  constructor(
    readonly base: string,
    private readonly document: Json,
    private readonly runtime: ReadonlyMap<string, string>,
    settings: Omit<TypescriptSettings, "imports">,
    { root, rest = {} }: { readonly root: string; readonly rest?: Pick<RestSettings, "pages"> },
  ) {
    this.rest = rest;
    this.settings = settings;
    this.before = read(document);
    const files = this.files(this.before);
    this.program = programOf(files);
    const known = new Set(Object.keys(((document["components"] as Json)["schemas"] ?? {}) as Json).map(plain));
    this.app = exercisingApp(
      this.program,
      `sdk/${name}/index.ts`,
      (type) => known.has(plain(type)) || /(Webhook|Callback)$/.test(type),
    );
    const refused = this.refused(this.before);
    this.uses = sourceUses({
      program: this.program,
      isSdkFile: (path) => path.startsWith(`${folder}/sdk/${name}/`),
      connect: "connectShop",
      documentOf: (path) => documents.get(path)?.document,
    });
    this.project = new ProjectOnDisk({
      root,
      configuration: {
        contracts: { [name]: { from: "api.json", ...rest } },
        sdks: { app: { language: "typescript", covers: [name], into: "src/sdk", settings } },
      },
      files: { "api.json": JSON.stringify(document) },
    });
    if (refused.size > 0)
      throw new Error(`The app does not compile before: ${refusalsTold(this.app, refused).slice(0, 5).join("\n")}`);
  }

  get lines(): number {
    return this.app.lines.size;
  }

  /** Returns calls that a released app cannot make, because no arguments were found for them. */
  get untried(): readonly string[] {
    return this.released?.untried ?? [];
  }

  /** Releases an app with the current SDK, so that the verdict for released apps is checked too. */
  async release(): Promise<void> {
    const files = this.files(this.before);
    this.released = await ReleasedApp.released(this.before, this.document, files, this.rest);
    const broken = await this.released.broken(this.before, this.document, 3);
    if (broken.length > 0) throw new Error(`The released app does not work before: ${broken.join("\n")}`);
    await this.project.generate();
  }

  /** Applies an edit of each kind, one after the other, and returns the prediction and the facts. */
  async judge(kinds: readonly string[], seed: number, withApp: boolean): Promise<Case | undefined> {
    const document = structuredClone(this.document);
    const edits = kinds.map((kind) => restEdits.find((edit) => edit.kind === kind) as Edit<Json>);
    const done = edits.filter((edit, at) => edit.apply(document, new Randomness(seed + at)));
    if (done.length === 0) return undefined;
    const after = read(document);
    // The app does not use type names that the SDK made up.
    const changes = compareRest(this.before, after, {
      ...typescriptFacts(this.settings),
      suppliesBaseUrl: true,
      rest: this.rest,
    }).filter(({ isUnpromised }) => isUnpromised !== true);
    const broken = await this.released?.broken(after, document, seed);
    const refused = this.refused(after);
    const inUse = withApp ? await this.judgeInUse(document, after, [...refused.keys()], seed) : undefined;
    const blame = done.length > 1 ? this.blame(after, changes, edits, seed) : undefined;
    return {
      ...(blame ? { blame } : {}),
      inUse,
      base: this.base,
      seed,
      kinds: done.map(({ kind }) => kind),
      isMeaningless: done.every(({ isMeaningless }) => isMeaningless === true),
      changes,
      facts: {
        code: factOf(this.app, refused),
        ...(broken ? { apps: broken.length > 0 ? ("breaking" as const) : ("compatible" as const) } : {}),
      },
      evidence: { code: refusalsTold(this.app, refused), apps: broken ?? [] },
    };
  }

  private judgeInUse(document: Json, after: RestContract, lines: readonly number[], seed: number): Promise<AppCase> {
    const changed = {
      everything: this.app,
      project: this.project,
      name,
      before: this.files(this.before),
      after: this.files(after),
      changed: { "api.json": JSON.stringify(document) },
      lines,
      seed,
    };
    return appInUse(changed, async ({ isWhole, calls }) => {
      const asked = isWhole ? await this.released?.askedIn(calls) : undefined;
      return asked && this.released?.broken(after, document, seed, asked);
    });
  }

  /** Whether each compile error is listed under a change of the edit that alone would cause it too. */
  private blame(after: RestContract, changes: readonly Change[], edits: readonly Edit<Json>[], seed: number): Blame {
    const facts = { ...typescriptFacts(this.settings), suppliesBaseUrl: true, rest: this.rest };
    const keyOf = ({ code, subject }: Change): string => `${code} ${subject}`;
    const singles = edits.flatMap((edit, at) => {
      const document = structuredClone(this.document);
      if (!edit.apply(document, new Randomness(seed + at))) return [];
      const alone = read(document);
      const lines = new Set(this.refused(alone).keys());
      return [{ lines, keys: new Set(compareRest(this.before, alone, facts).map(keyOf)) }];
    });
    this.refused(after);
    const judged = judgeUse(changes, "rest", {
      queries: [],
      searched: true,
      source: this.uses,
    });
    const blame: Blame = { right: 0, wrong: [], alone: 0 };
    for (const error of compileErrors(this.program, documents)) {
      const line = this.app.text.slice(0, error.place.offset).split("\n").length;
      const culprits = singles.filter(({ lines }) => lines.has(line));
      const change = explainError(error, {
        changes: judged,
        uses: this.uses,
        refused: new Map(),
        namesOf: operationNames,
      });
      // If only several edits together cause an error, no single edit is to blame, and neither is an edit that alone
      // affects another place.
      const isOfAll = change && !singles.some(({ keys }) => keys.has(keyOf(change)));
      if (culprits.length === 0 || isOfAll === true) blame.alone++;
      else if (change && culprits.some(({ keys }) => keys.has(keyOf(change)))) blame.right++;
      else
        blame.wrong.push(
          `${error.message.slice(0, 140)} -- ${error.statement.trim().slice(0, 120)} -> ${change ? keyOf(change) : "nothing"}`,
        );
    }
    return blame;
  }

  private refused(contract: RestContract): Map<number, string[]> {
    this.program = programOf(new Map([...this.files(contract), ["app.ts", this.app.text]]), this.program);
    return refusedLines(this.program, "app.ts");
  }

  private files(contract: RestContract): Map<string, string> {
    const sdk = printTypescriptSdk(
      { name: "sdk", contracts: [planRest(contract, this.rest)] },
      { runtime: this.runtime, scalars: new Map(), settings: this.settings },
    );
    return new Map([...sdk].filter(([path]) => path.endsWith(".ts")).map(([path, text]) => [`sdk/${path}`, text]));
  }
}

function read(document: Json): RestContract {
  const { contract, problems } = readContract(name, [{ document: "api.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest") throw new Error(problems.map(({ message }) => message).join("; "));
  return contract;
}

function plain(text: string): string {
  return text.toLowerCase().replace(/[^a-z0-9]/g, "");
}
