import { resolve } from "node:path";
import type { CompileError } from "../../../core/use/compileError.js";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import { isInside, type Project } from "../../project.js";
import type { MadeFiles, SdkPart } from "../languageTools.js";
import { AppCompiler, type AppProgram } from "./appProgram.js";
import { appSources } from "./appSources.js";
import { compileErrors } from "./compileErrors.js";
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

  /** What is refused in an app with its SDKs as they are written, and what is besides with others in their place. */
  compare(project: Project, made: MadeFiles): { before: CompileError[]; fresh: CompileError[] } {
    const old = this.compiled(project);
    const before = compileErrors(old.program, old.documents);
    const known = new Set(before.map(keyOf));
    // What does not import an SDK that is made anew compiles as before.
    const touched = filesReaching(old.program, (name) =>
      made.replaced.some((folder) => isInside(folder, resolve(name))),
    );
    const now = this.compile(project, made, old);
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

function keyOf({ place, code, message }: CompileError): string {
  return `${place.document} ${String(place.offset)} ${code} ${message}`;
}
