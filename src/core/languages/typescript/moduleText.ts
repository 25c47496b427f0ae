import { sortedBy } from "../../text/sortedBy.js";

/** The first line of every module. */
export const header =
  "// Written by rhema generate. Do not edit: the next run replaces this file. Change the contract or the query documents instead.";

export interface Import {
  readonly from: string;
  /** Named imports of types only. */
  readonly types?: Iterable<string>;
  /** Named imports of values. */
  readonly values?: Iterable<string>;
  /** The name for importing everything. */
  readonly namespace?: string;
  readonly namespaceIsType?: boolean;
}

/** Returns a module: the header, its imports in a fixed order, then its parts with a blank line between them. */
export function moduleText(header: string, imports: readonly Import[], parts: readonly string[]): string {
  const lines = sortedBy(imports, (each) => each.from).flatMap(printImport);
  const blocks = [
    header.trimEnd(),
    ...(lines.length > 0 ? [lines.join("\n")] : []),
    ...parts.map((part) => part.trimEnd()),
  ];
  return `${blocks.filter((block) => block !== "").join("\n\n")}\n`;
}

const widestImport = 110;

function printImport({ from, types = [], values = [], namespace, namespaceIsType }: Import): string[] {
  const lines: string[] = [];
  const source = JSON.stringify(from);
  if (namespace !== undefined) lines.push(`import ${namespaceIsType ? "type " : ""}* as ${namespace} from ${source};`);
  for (const [keyword, names] of [
    ["import type", sortedBy(new Set(types), (name) => name)],
    ["import", sortedBy(new Set(values), (name) => name)],
  ] as const) {
    if (names.length === 0) continue;
    const line = `${keyword} { ${names.join(", ")} } from ${source};`;
    lines.push(
      line.length <= widestImport
        ? line
        : `${keyword} {\n${names.map((name) => `  ${name},\n`).join("")}} from ${source};`,
    );
  }
  return lines;
}
