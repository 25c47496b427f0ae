import { resolve } from "node:path";
import type { CompileError } from "../../../core/use/compileError.js";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import { isInside, type Project } from "../../project.js";
import type { ComparingApps, MadeFiles, SdkPart } from "../languageTools.js";
import { checkedApps, configuredChecker, type Describing } from "../checkedApps.js";
import { appChecker } from "./appChecker.js";
import { AppCompiler, type AppProgram } from "./appProgram.js";
import { appSources } from "./appSources.js";
import { compileErrors, describeError } from "./compileErrors.js";
import { filesReaching } from "./filesReaching.js";
import { sourceUses } from "./sourceUses.js";

/** Apps as the compiler sees them. One program serves all contracts of a project. */
export class CompiledApps {
  private readonly compiler = new AppCompiler();
  private readonly programs = new WeakMap<Project, AppProgram>();

  /** Where an app's source depends on parts of SDKs. */
  uses(project: Project, parts: readonly SdkPart[], made?: MadeFiles): SourceUse[] {
    const app = made ? this.compile(project, made) : this.compiled(project);
    return parts.flatMap(({ sdk, folder, connect }) =>
      sourceUses({
        program: app.program,
        isSdkFile: (name) => isInside(folder, resolve(name)),
        connect,
        documentOf: (name) => app.documents.get(name)?.document,
        sourceRange: (name, start, end) => {
          const module = app.documents.get(name)?.module;
          return module ? module.mapped.sourceRange(start, end) : [start, end];
        },
      }).map((use) => ({ ...use, sdk })),
    );
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
    const checker = run === undefined ? appChecker(project.root, documents) : configuredChecker(run);
    if (checker) return checkedApps({ project, checker, describe: describing(app) }, made, old);
    const before = compileErrors(app.program, app.documents);
    const known = new Set(before.map(keyOf));
    // What does not import an SDK that is made anew compiles as before.
    const touched = filesReaching(app.program, (name) =>
      made.replaced.some((folder) => isInside(folder, resolve(name))),
    );
    const now = this.compile(project, made, app);
    const fresh = compileErrors(now.program, now.documents, touched).filter((error) => !known.has(keyOf(error)));
    return { before, fresh };
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

function keyOf({ place, code, message }: CompileError): string {
  return `${place.document} ${String(place.offset)} ${code} ${message}`;
}
