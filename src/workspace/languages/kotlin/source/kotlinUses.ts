import { printCoordinate } from "../../../../core/use/coordinate.js";
import type { SourceUse } from "../../../../core/use/sourceUse.js";
import type { SourceFile } from "../../source/declared.js";
import type { SdkSource, SourceText } from "../../source/sdkSource.js";
import { usesInSource } from "../../source/usesInSource.js";
import type { Tell } from "../../source/told.js";
import { BodyScan } from "./bodyScan.js";
import { readSource } from "./declarations.js";
import { KotlinSdk } from "./kotlinSdk.js";

/** Returns every place in an app's Kotlin source that uses a contract's part of an SDK. */
export function kotlinUses(app: readonly SourceText[], sdk: SdkSource): SourceUse[] {
  return usesInSource(app, sdk, {
    read: readSource,
    model: (connect, files) => new KotlinSdk(connect, files[0]?.file.package ?? "", files),
    scan: (file, { program, model, tell, shared }) => {
      imported(file, model.namespace, tell);
      new BodyScan(program, model, tell, shared).declarations(
        file.declared,
        { file, around: [], parameters: new Map() },
        { tokens: file.tokens },
      );
    },
  });
}

/** The names of an SDK that a file imports. If one is removed, the line does not compile. */
function imported({ imports }: SourceFile, namespace: string, tell: Tell): void {
  for (const { whole, token } of imports.values()) {
    if (!whole.startsWith(`${namespace}.`)) continue;
    tell(printCoordinate(whole.slice(namespace.length + 1)), "names", token);
  }
}
