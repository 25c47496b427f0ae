import type { SourceUse } from "../../../../core/use/sourceUse.js";
import type { SdkSource, SourceText } from "../../source/sdkSource.js";
import { usesInSource } from "../../source/usesInSource.js";
import { BodyScan } from "./bodyScan.js";
import { readSource } from "./declarations.js";
import { SwiftSdk } from "./swiftSdk.js";

/** Returns every place in an app's Swift source that uses a contract's part of an SDK. */
export function swiftUses(app: readonly SourceText[], sdk: SdkSource): SourceUse[] {
  return usesInSource(app, sdk, {
    read: readSource,
    model: (connect, files) => new SwiftSdk(connect, files),
    scan: (file, { program, model, tell, shared }) => {
      new BodyScan(program, model, tell, shared).file(
        file.declared,
        { file, around: [], parameters: new Map() },
        file.tokens,
      );
    },
  });
}
