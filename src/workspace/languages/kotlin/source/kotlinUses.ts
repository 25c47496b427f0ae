import type { SourceUse } from "../../../../core/use/sourceUse.js";
import type { SharedScan } from "./resolver.js";
import type { Holder } from "./scope.js";
import { BodyScan } from "./bodyScan.js";
import { readSource, type SourceFile } from "./declarations.js";
import { KnownProgram } from "./knownProgram.js";
import { SdkModel } from "./sdkModel.js";
import type { Tell, Told } from "./values.js";

/** A text, and what people call it. */
export interface SourceText {
  readonly document: string;
  readonly text: string;
}

/** An SDK in source. */
export interface SdkSource {
  readonly name: string;
  /** The class of a contract's connection. */
  readonly connect: string;
  /** Files of the contract's part. */
  readonly files: readonly SourceText[];
  /** Files of other contracts' parts, and of the runtime. */
  readonly others: readonly SourceText[];
}

const longestShown = 120;

/**
 * Finds every place of an app's Kotlin source that depends on a contract's part of an SDK: calls and their arguments,
 * types, members that are read, records that are built, choices and unions that are matched. Types of expressions are
 * followed through the app's own declarations and the usual libraries; a member of something of which nothing is known is
 * said to reach all records that have such a member.
 */
export function kotlinUses(app: readonly SourceText[], sdk: SdkSource): SourceUse[] {
  const own = sdk.files.map(({ document, text }) => ({ file: readSource(document, text, true), text }));
  const namespace = own[0]?.file.package ?? "";
  const model = new SdkModel(sdk.connect, namespace, own);
  const others = sdk.others.map(({ document, text }) => readSource(document, text, true));
  const sources = app.map(({ document, text }) => readSource(document, text, false));
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
    imported(file, namespace, tell);
    try {
      new BodyScan(program, model, tell, shared).declarations(
        file.declared,
        { file, around: [], parameters: new Map() },
        file.tokens,
      );
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
function settleHeld({ read, places: [first, ...others] }: Holder): void {
  if (!first || others.some(({ kind }) => kind !== first.kind)) return;
  for (const each of read) if (each.kind === "reads") each.kind = first.kind;
}

/** Names that a file imports of an SDK: when one is gone, the line does not compile. */
function imported({ imports }: SourceFile, namespace: string, tell: Tell): void {
  for (const { whole, token } of imports.values()) {
    if (!whole.startsWith(`${namespace}.`)) continue;
    tell(whole.slice(namespace.length + 1), "names", token);
  }
}

/** Of a file that cannot be looked through it is said that it may use every record. */
function reachesAll(
  { tokens: [first] }: SourceFile,
  { program, model, tell }: { readonly program: KnownProgram; readonly model: SdkModel; readonly tell: Tell },
): void {
  for (const known of program.classes.values()) {
    const coordinate = model.coordinateOf(known);
    if (coordinate !== undefined && first) tell(`${coordinate}.*`, "reaches", first);
  }
}
