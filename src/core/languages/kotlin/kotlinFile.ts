import { joinedBlocks } from "../joinedBlocks.js";

/** The first line of every file. */
export const header =
  "// Written by rhema generate. Do not edit: the next run replaces this file. Change the contract or the query documents instead.";

/** The names that one file uses from elsewhere: full names, as they are imported. */
export class FileUses {
  private readonly names = new Set<string>();
  private readonly fromRuntime = new Set<string>();

  constructor(
    /** The package of the runtime. */
    private readonly runtime: string,
  ) {}

  /** Records a name of the runtime. Returns its short name. */
  wire(name: string): string {
    this.fromRuntime.add(name);
    return name;
  }

  /** Records a name of the platform or a library, by its full name. Returns its short name. */
  other(whole: string): string {
    this.names.add(whole);
    return whole.slice(whole.lastIndexOf(".") + 1);
  }

  /** Records a function of the app, by its full name. Returns a name that neither the runtime nor a contract has. */
  own(whole: string): string {
    const name = whole.replaceAll(".", "_");
    this.names.add(`${whole} as ${name}`);
    return name;
  }

  /** Returns the full name of an import by its short name; undefined if there is none. */
  wholeName(short: string): string | undefined {
    return this.imports().find((name) => name.endsWith(`.${short}`));
  }

  imports(): string[] {
    // In code-unit order, as text is sorted by default.
    return [...this.names, ...Array.from(this.fromRuntime, (name) => `${this.runtime}.${name}`)].sort();
  }
}

/** A file of Kotlin source. */
export interface KotlinFile {
  readonly package: string;
  readonly uses: FileUses;
  /** Declarations, each without an empty line at its end. */
  readonly parts: readonly string[];
  /** The JVM's name for the class of top-level functions. */
  readonly facade?: string | undefined;
  /** Warnings that do not apply here. */
  readonly suppresses?: readonly string[];
}

/**
 * Returns the text of a file: the header, the package, the sorted imports, then the parts with a blank line between
 * them.
 */
export function fileText({ package: name, uses, parts, facade, suppresses = [] }: KotlinFile): string {
  const annotations = [
    ...(facade === undefined ? [] : [`@file:JvmName("${facade}")`]),
    ...(suppresses.length === 0 ? [] : [`@file:Suppress(${suppresses.map((each) => `"${each}"`).join(", ")})`]),
  ];
  const imports = uses.imports().map((each) => `import ${each}`);
  return joinedBlocks([header, annotations.join("\n"), `package ${name}`, imports.join("\n"), ...parts]);
}

/** The columns of a line. */
export const widest = 120;

/**
 * Returns an expression with arguments in parentheses, on one line if it fits.
 *
 * @param before the text before the parenthesis, on the same line
 * @param after the text after it
 */
export function withArguments(
  before: string,
  given: readonly string[],
  { after = "", indent = "" }: { readonly after?: string | undefined; readonly indent?: string | undefined } = {},
): string {
  const line = `${before}(${given.join(", ")})${after}`;
  if (!line.includes("\n") && indent.length + line.length <= widest) return line;
  if (given.length === 0) return line;
  const inner = given.map((each) => `${indent}    ${each.replace(/\n/g, "\n    ")},\n`).join("");
  return `${before}(\n${inner}${indent})${after}`;
}
