import type ts from "typescript";
import { compareRest } from "../../src/core/change/compareRest.js";
import type { Level } from "../../src/core/change/verdict.js";
import type { RestContract } from "../../src/core/contract/model.js";
import { printTypescriptSdk } from "../../src/core/languages/typescript/printTypescriptSdk.js";
import { typescriptSdkFacts } from "../../src/core/languages/typescript/sdkFacts.js";
import type { TypescriptSettings } from "../../src/core/languages/typescript/settings.js";
import { readContract } from "../../src/core/readContract.js";
import { planRest } from "../../src/core/sdk/planRest.js";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";
import { exercisingApp, type ExercisingApp } from "./exercise.js";
import { ReleasedApp } from "./restApps.js";
import { programOf, refusedLines } from "./program.js";
import { restEdits, type Edit } from "./restEdits.js";
import type { Case } from "./truth.js";

const name = "shop";

/** One REST contract with an app that uses everything of it, to be changed in many ways. */
export class RestTruth {
  private readonly before: RestContract;
  private readonly app: ExercisingApp;
  private program: ts.Program;
  private readonly settings: Omit<TypescriptSettings, "imports">;
  private released: ReleasedApp | undefined;

  constructor(
    readonly base: string,
    private readonly document: Json,
    private readonly runtime: ReadonlyMap<string, string>,
    settings: Omit<TypescriptSettings, "imports"> = {},
  ) {
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
    if (refused.size > 0)
      throw new Error(`The app does not compile before: ${this.told(refused).slice(0, 5).join("\n")}`);
  }

  get lines(): number {
    return this.app.lines.size;
  }

  /** Calls that a released app cannot make, because no arguments were found for them. */
  get untried(): readonly string[] {
    return this.released?.untried ?? [];
  }

  /** Releases an app with the SDK as it is, so that the clock of apps is judged too. */
  async release(): Promise<void> {
    const files = this.files(this.before);
    this.released = await ReleasedApp.released(this.before, this.document, files);
    const broken = await this.released.broken(this.before, this.document, 3);
    if (broken.length > 0) throw new Error(`The released app does not work before: ${broken.join("\n")}`);
  }

  /** Applies an edit of each kind, one after the other, and says what is predicted and what is so. */
  async judge(kinds: readonly string[], seed: number): Promise<Case | undefined> {
    const document = structuredClone(this.document);
    const random = new Randomness(seed);
    const edits = kinds.map((kind) => restEdits.find((edit) => edit.kind === kind) as Edit<Json>);
    const done = edits.filter((edit) => edit.apply(document, random));
    if (done.length === 0) return undefined;
    const after = read(document);
    const changes = compareRest(this.before, after, {
      ...typescriptSdkFacts(this.settings),
      suppliesBaseUrl: true,
    });
    const broken = await this.released?.broken(after, document, seed);
    const refused = this.refused(after);
    return {
      base: this.base,
      seed,
      kinds: done.map(({ kind }) => kind),
      isMeaningless: done.every(({ isMeaningless }) => isMeaningless === true),
      changes,
      facts: {
        code: this.fact(refused),
        ...(broken ? { apps: broken.length > 0 ? ("breaking" as const) : ("compatible" as const) } : {}),
      },
      evidence: { code: this.told(refused), apps: broken ?? [] },
    };
  }

  private refused(contract: RestContract): Map<number, string[]> {
    this.program = programOf(new Map([...this.files(contract), ["app.ts", this.app.text]]), this.program);
    return refusedLines(this.program, "app.ts");
  }

  private fact(refused: ReadonlyMap<number, string[]>): Level {
    let fact: Level = "compatible";
    for (const line of refused.keys()) {
      const kind = this.app.lines.get(line);
      if (kind !== "match" && kind !== "build") return "breaking";
      fact = "risky";
    }
    return fact;
  }

  private told(refused: ReadonlyMap<number, string[]>): string[] {
    const lines = this.app.text.split("\n");
    return [...refused].map(
      ([line, messages]) =>
        `${this.app.lines.get(line) ?? "?"}: ${(lines[line - 1] ?? "").trim().slice(0, 160)}  -- ${(messages[0] ?? "").slice(0, 160)}`,
    );
  }

  private files(contract: RestContract): Map<string, string> {
    const sdk = printTypescriptSdk(
      { name: "sdk", contracts: [planRest(contract, {})] },
      { importEnding: "js", runtime: this.runtime, scalars: new Map(), settings: this.settings },
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
