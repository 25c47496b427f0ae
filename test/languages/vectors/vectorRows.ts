import { readFileSync } from "node:fs";
import { join } from "node:path";
import { packageRoot } from "../../support/packageRoot.js";

/** A row of any kind. */
export interface AnyRow {
  readonly why: string;
  readonly rule: string;
}

/** The rows of a kind. */
export function vectorRows(kind: string): readonly AnyRow[] {
  const text = readFileSync(join(packageRoot, `vectors/${kind}.json`), "utf8");
  return (JSON.parse(text) as { readonly rows: readonly AnyRow[] }).rows;
}
