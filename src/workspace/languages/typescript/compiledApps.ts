import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import ts from "typescript";
import type { HandWritten, RequestedOperation } from "../../../core/outline/handWritten.js";
import type { OffsetPlace } from "../../../core/problem/place.js";
import type { CompileError } from "../../../core/use/compileError.js";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import { displayPath, isInside, type Project } from "../../project/project.js";
import type { ComparingApps, CompiledInMemory, MadeFiles, SdkPart } from "../languageTools.js";
import { checkedApps, configuredChecker, type Describing } from "../checkedApps.js";
import { appChecker } from "./appChecker.js";
import { AppCompiler, type AppProgram } from "./appProgram.js";
import { appSources } from "./appSources.js";
import { compileErrors, describeError } from "./compileErrors.js";
import { filesReaching, importsUnknown } from "./filesReaching.js";
import type { SdkModule } from "./handWritten/coveredTypes.js";
import { handWritten } from "./handWritten/handWritten.js";
import type { ComponentModule } from "./markup/componentModule.js";
import { sourceUses } from "./sourceUses.js";

/** Apps as the compiler sees them. One program serves all contracts of a project. */
export class CompiledApps {
  private readonly compiler: AppCompiler;
  private readonly programs = new WeakMap<Project, AppProgram>();

  /** @param checksScripts the compiler checks plain scripts too, whatever the app's configuration says */
  constructor(private readonly checksScripts = false) {
    this.compiler = new AppCompiler(checksScripts);
  }

  /** Where an app's source depends on parts of SDKs. */
  uses(project: Project, parts: readonly SdkPart[], made?: MadeFiles): SourceUse[] {
    const app = made ? this.compile(project, made) : this.compiled(project);
    return parts.flatMap(({ sdk, folder, connect }) =>
      sourceUses({
        program: app.program,
        isSdkFile: once((name) => isInside(folder, resolve(name))),
        connect,
        documentOf: (name) => app.documents.get(name)?.document,
        sourceRange: (name, start, end) => {
          const module = app.documents.get(name)?.module;
          return module ? module.mapped.sourceRange(start, end) : [start, end];
        },
      }).map((use) => ({ ...use, sdk })),
    );
  }

  /** Requests and types of an app's own that SDKs have too. */
  handWritten(project: Project, parts: readonly SdkPart[], operations: readonly RequestedOperation[]): HandWritten[] {
    const modules = parts.flatMap(({ contract, folder }): SdkModule[] => {
      const file = ["index.ts", "index.d.ts"].map((name) => join(folder, name)).find((path) => existsSync(path));
      return file === undefined
        ? []
        : [{ contract, file, path: displayPath(project, folder), isOwn: (name) => isInside(folder, resolve(name)) }];
    });
    // An app that has not begun to use an SDK imports nothing of it.
    const own = appSources(project).map(({ document }) => resolve(project.root, document));
    const sources = [...new Set([...own, ...modules.map(({ file }) => file)])];
    return handWritten(this.compiler.compile(project, { sources }), { operations, modules });
  }

  /**
   * What is refused in an app with its SDKs as they are, and what is besides with others in their place. The app's own
   * checker says it where there is one.
   */
  async compare(
    project: Project,
    made: MadeFiles,
    { old, run }: ComparingApps = {},
  ): Promise<{ before: CompileError[]; fresh: CompileError[] }> {
    const app = old ? this.compile(project, old) : this.compiled(project);
    const documents = [...app.documents.values()].map(({ document }) => document);
    // The app's own checker does not look at scripts unless it is told to.
    const own = this.checksScripts ? undefined : appChecker(project.root, documents);
    const checker = run === undefined ? own : configuredChecker(run);
    if (checker) return checkedApps({ project, checker, describe: describing(app) }, made, old);
    const before = compileErrors(app.program, app.documents);
    return { before, fresh: this.fresh(project, made, app).errors };
  }

  /** What is refused in memory of what depends on SDKs that are made anew. */
  inMemory(project: Project, made: MadeFiles, old?: MadeFiles): CompiledInMemory {
    const app = old ? this.compile(project, old) : this.compiled(project);
    const { errors, touched, now } = this.fresh(project, made, app);
    const checksScripts = app.program.getCompilerOptions().checkJs === true;
    const isChecked = (name: string, module: ComponentModule | undefined): boolean => {
      if (module?.isTyped === false || (/\.[cm]?jsx?$/.test(name) && !checksScripts)) return false;
      const file = app.program.getSourceFile(name);
      return file !== undefined && !importsUnknown(app.program, file);
    };
    const documents = [...touched].flatMap((name) => {
      const found = app.documents.get(name);
      return found ? [{ name, ...found }] : [];
    });
    const [checked, unchecked] = [true, false].map(
      (wanted) =>
        new Set(
          documents.filter(({ name, module }) => isChecked(name, module) === wanted).map(({ document }) => document),
        ),
    );
    return {
      fresh: errors,
      checked: checked ?? new Set(),
      unchecked: unchecked ?? new Set(),
      knows: (place) => errors.length === 0 || !("offset" in place) || !isHidden(place, app, now),
    };
  }

  private fresh(
    project: Project,
    made: MadeFiles,
    app: AppProgram,
  ): { readonly errors: CompileError[]; readonly touched: ReadonlySet<string>; readonly now: AppProgram } {
    // What does not import an SDK that is made anew compiles as before.
    const touched = filesReaching(app.program, (name) =>
      made.replaced.some((folder) => isInside(folder, resolve(name))),
    );
    const now = this.compile(project, made, app);
    const refused = compileErrors(now.program, now.documents, touched);
    if (refused.length === 0) return { errors: [], touched, now };
    const known = new Set(compileErrors(app.program, app.documents, touched).map(keyOf));
    return { errors: refused.filter((error) => !known.has(keyOf(error))), touched, now };
  }

  private compiled(project: Project): AppProgram {
    const known = this.programs.get(project) ?? this.compile(project, { texts: new Map(), replaced: [] });
    this.programs.set(project, known);
    return known;
  }

  private compile(project: Project, made: MadeFiles, previous?: AppProgram): AppProgram {
    const sources = appSources(project).map(({ document }) => resolve(project.root, document));
    return this.compiler.compile(project, { sources, ...made }, previous?.program);
  }
}

/** What stands around a complaint of the app's checker. */
function describing({ program, documents }: AppProgram): Describing {
  const byDocument = new Map([...documents].map(([name, { document, module }]) => [document, { name, module }]));
  return ({ file: document, code, message }, { offset, length }) => {
    const known = byDocument.get(document);
    const file = known && program.getSourceFile(known.name);
    if (!file) return undefined;
    const { module } = known;
    const start = module ? module.mapped.moduleOffset(offset) : offset;
    if (start === undefined) return undefined;
    return describeError({ program, file, module }, [start, start + length], { document, code, message });
  };
}

/** Whether what stands at a place had a type before, and has none that the compiler knows now. */
function isHidden(place: OffsetPlace, before: AppProgram, now: AppProgram): boolean {
  const [then, after] = [before, now].map((app) => typeAt(app, place));
  return then !== undefined && after !== undefined && !isAny(then) && isAny(after);
}

function typeAt({ program, documents }: AppProgram, { document, offset }: OffsetPlace): ts.Type | undefined {
  for (const [name, { document: shown, module }] of documents) {
    if (shown !== document) continue;
    const file = program.getSourceFile(name);
    const at = module ? module.mapped.moduleOffset(offset) : offset;
    if (file && at !== undefined) return program.getTypeChecker().getTypeAtLocation(innermost(file, at));
  }
  return undefined;
}

function innermost(node: ts.Node, offset: number): ts.Node {
  const inside = ts.forEachChild(node, (child) =>
    child.getStart() <= offset && offset < child.getEnd() ? child : undefined,
  );
  return inside ? innermost(inside, offset) : node;
}

function isAny(type: ts.Type): boolean {
  return (type.flags & ts.TypeFlags.Any) !== 0;
}

/** What did not compile there before may be told in other words: messages print whole types. */
function keyOf({ place, code }: CompileError): string {
  return `${place.document} ${String(place.offset)} ${code}`;
}

/** Remembers what it said of a file: it is asked for each property that source reads. */
function once(isIn: (name: string) => boolean): (name: string) => boolean {
  const known = new Map<string, boolean>();
  return (name) => {
    const before = known.get(name);
    if (before !== undefined) return before;
    const found = isIn(name);
    known.set(name, found);
    return found;
  };
}
