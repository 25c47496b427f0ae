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

/** How source of a language is read and looked through. */
export interface SourceLanguage {
  readonly read: (document: string, text: string, isSdk: boolean) => SourceFile;
  /** @param files those of the contract's part, and their texts */
  readonly model: (connect: string, files: readonly { readonly file: SourceFile; readonly text: string }[]) => SdkModel;
  /** Looks through a file. */
  readonly scan: (file: SourceFile, scan: Scanning) => void;
}

/** What looking through a file needs. */
export interface Scanning {
  readonly program: KnownProgram;
  readonly model: SdkModel;
  readonly tell: Tell;
  readonly shared: SharedScan;
}

/**
 * Finds every place of an app's source that depends on a contract's part of an SDK: calls and their arguments, types,
 * members that are read, records that are built, choices and unions that are matched. Types of expressions are followed
 * through the app's own declarations and the usual libraries; a member of something of which nothing is known is said to
 * reach all records that have such a member.
 */
export function usesInSource(app: readonly SourceText[], sdk: SdkSource, language: SourceLanguage): SourceUse[] {
  const own = sdk.files.map(({ document, text }) => ({ file: language.read(document, text, true), text }));
  const model = language.model(sdk.connect, own);
  const others = sdk.others.map(({ document, text }) => language.read(document, text, true));
  const sources = app.map(({ document, text }) => language.read(document, text, false));
  const program = new KnownProgram([...sources, ...own.map(({ file }) => file), ...others]);
  const found: (Omit<SourceUse, "kind"> & Told)[] = [];
  const shared: SharedScan = { inferred: new Map(), depth: 0, holders: [] };
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
      // Nested so deeply that nobody wrote it; of the rest of the file nothing is known.
      if (!(error instanceof RangeError)) throw error;
      reachesAll(file, { program, model, tell });
    }
  }
  for (const holder of shared.holders) settleHeld(holder);
  return found;
}

/** What is done with a variable wherever it stands is done with the members whose value it holds. */
function settleHeld({ read, computed = [], places }: Holder): void {
  if (places.some(({ unwraps }) => unwraps === true)) for (const each of read) each.unwraps = true;
  const [first, ...others] = places;
  if (first && places.every(({ kind }) => kind === "shows" || kind === "computes"))
    for (const each of computed) each.kind = "computes";
  if (!first || others.some(({ kind }) => kind !== first.kind)) return;
  for (const each of read) if (each.kind === "reads") each.kind = first.kind;
}

/** Of a file that cannot be looked through it is said that it may use every record. */
function reachesAll(
  { tokens: [first] }: SourceFile,
  { program, model, tell }: { readonly program: KnownProgram; readonly model: SdkModel; readonly tell: Tell },
): void {
  for (const known of program.classes.values()) {
    const coordinate = model.coordinateOf(known);
    if (coordinate !== undefined && first) tell(printCoordinate(coordinate, "anyMember"), "reaches", first);
  }
}
