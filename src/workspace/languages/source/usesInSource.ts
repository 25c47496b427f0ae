import { printCoordinate } from "../../../core/use/coordinate.js";
import type { SourceUse } from "../../../core/use/sourceUse.js";
import type { SourceFile } from "./declared.js";
import { KnownProgram } from "./knownProgram.js";
import type { SharedScan } from "./resolver.js";
import type { Holder } from "./scope.js";
import type { SdkModel } from "./sdkModel.js";
import type { SdkSource, SourceText } from "./sdkSource.js";
import type { Tell, Told } from "./told.js";

const longestShown = 120;

/** How source of a language is read and scanned. */
export interface SourceLanguage {
  readonly read: (document: string, text: string, isSdk: boolean) => SourceFile;
  /** @param files the files of the contract's part, with their texts */
  readonly model: (connect: string, files: readonly { readonly file: SourceFile; readonly text: string }[]) => SdkModel;
  /** Scans a file. */
  readonly scan: (file: SourceFile, scan: Scanning) => void;
}

/** The facts for scanning a file. */
export interface Scanning {
  readonly program: KnownProgram;
  readonly model: SdkModel;
  readonly tell: Tell;
  readonly shared: SharedScan;
}

/**
 * Returns every place in an app's source that uses a contract's part of an SDK: calls and their arguments, types,
 * members that are read, records that are built, enums and unions that are matched. Types of expressions follow from
 * the app's own declarations and common libraries. A member of an unknown value may belong to all records that have
 * such a member.
 *
 * @param app the app's source files
 * @param sdk the SDK's source files
 */
export function usesInSource(app: readonly SourceText[], sdk: SdkSource, language: SourceLanguage): SourceUse[] {
  const own = sdk.files.map(({ document, text }) => ({ file: language.read(document, text, true), text }));
  const model = language.model(sdk.connect, own);
  const others = sdk.others.map(({ document, text }) => language.read(document, text, true));
  const sources = app.map(({ document, text }) => language.read(document, text, false));
  const program = new KnownProgram([...sources, ...own.map(({ file }) => file), ...others]);
  const found: (Omit<SourceUse, "kind"> & Told)[] = [];
  const shared: SharedScan = { inferred: new Map(), depth: 0, choosing: 0, holders: [] };
  for (const file of sources) {
    const seen = new Map<string, Told>();
    const tell: Tell = (coordinate, kind, token) => {
      const key = `${coordinate} ${kind} ${String(token.offset)}`;
      const known = seen.get(key);
      if (known) return known;
      const length = Math.max(1, Math.min(token.end - token.offset, longestShown));
      const told = {
        sdk: sdk.name,
        coordinate,
        kind,
        place: { document: file.document, offset: token.offset, length },
      };
      seen.set(key, told);
      found.push(told);
      return told;
    };
    try {
      language.scan(file, { program, model, tell, shared });
    } catch (error) {
      // The file is nested too deeply to be written by people. The rest of it is unknown.
      if (!(error instanceof RangeError)) throw error;
      reachesAll(file, { program, model, tell });
    }
  }
  for (const holder of shared.holders) settleHeld(holder);
  return found;
}

/** A use of a variable is a use of the members whose value it has. */
function settleHeld({ read, computed = [], places }: Holder): void {
  if (places.some(({ unwraps }) => unwraps === true)) for (const each of read) each.unwraps = true;
  const [first, ...others] = places;
  if (first && places.every(({ kind }) => kind === "shows" || kind === "computes"))
    for (const each of computed) each.kind = "computes";
  if (!first || others.some(({ kind }) => kind !== first.kind)) return;
  for (const each of read) if (each.kind === "reads") each.kind = first.kind;
}

/** A file that cannot be scanned may use every record. */
function reachesAll(
  { tokens: [first] }: SourceFile,
  { program, model, tell }: { readonly program: KnownProgram; readonly model: SdkModel; readonly tell: Tell },
): void {
  for (const known of program.classes.values()) {
    const coordinate = model.coordinateOf(known);
    if (coordinate !== undefined && first) tell(printCoordinate(coordinate, "anyMember"), "reaches", first);
  }
}
