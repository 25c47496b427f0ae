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

/** Apps as the compiler sees them. One program is for all contracts of a project. */
export class CompiledApps {
  private readonly compiler: AppCompiler;
  private readonly programs = new WeakMap<Project, AppProgram>();

  /** @param checksScripts whether the compiler checks plain scripts too, whatever the app's configuration */
  constructor(private readonly checksScripts = false) {
    this.compiler = new AppCompiler(checksScripts);
  }

  /** Returns the places where an app's source uses parts of SDKs. */
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

  /** Returns requests and types of an app's own that SDKs have too. */
  handWritten(project: Project, parts: readonly SdkPart[], operations: readonly RequestedOperation[]): HandWritten[] {
    const modules = parts.flatMap(({ contract, folder }): SdkModule[] => {
      const file = ["index.ts", "index.d.ts"].map((name) => join(folder, name)).find((path) => existsSync(path));
      return file === undefined
        ? []
        : [{ contract, file, path: displayPath(project, folder), isOwn: (name) => isInside(folder, resolve(name)) }];
    });
    // An app that does not use the SDK yet does not import it.
    const own = appSources(project).map(({ document }) => resolve(project.root, document));
    const sources = [...new Set([...own, ...modules.map(({ file }) => file)])];
    return handWritten(this.compiler.compile(project, { sources }), { operations, modules });
  }

  /**
   * Returns the errors of an app with its current SDKs, and the additional ones with other SDKs. The app's own checker
   * is used if there is one.
   */
  async compare(
    project: Project,
    made: MadeFiles,
    { old, run }: ComparingApps = {},
  ): Promise<{ before: CompileError[]; fresh: CompileError[] }> {
    const app = old ? this.compile(project, old) : this.compiled(project);
    const documents = [...app.documents.values()].map(({ document }) => document);
    // The app's own checker does not check scripts unless it is told to.
    const own = this.checksScripts ? undefined : appChecker(project.root, documents);
    const checker = run === undefined ? own : configuredChecker(run);
    if (checker) return checkedApps({ project, checker, describe: describing(app) }, made, old);
    const before = compileErrors(app.program, app.documents);
    return { before, fresh: this.fresh(project, made, app).errors };
  }

  /** Compiles in memory the files that use changed SDKs. */
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
    // Files that do not import a changed SDK compile as before.
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

/** The code around an error of the app's checker. */
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

/** Whether the expression at a place had a type before, and the compiler does not know it now. */
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

/** Earlier errors may have other messages now, because messages contain whole types. */
function keyOf({ place, code }: CompileError): string {
  return `${place.document} ${String(place.offset)} ${code}`;
}

/** Caches the result for each file: it is needed for each property that source reads. */
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
