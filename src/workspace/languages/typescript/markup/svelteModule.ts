import ts from "typescript";
import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { boundNames, declaredNames } from "./declaredNames.js";
import { installedModule } from "./frameworkCompiler.js";
import { MappedText } from "./mappedText.js";
import { reachAll } from "./reachAll.js";
import { anyHelper, eachHelper, own } from "./scopeHelpers.js";
import { isTyped, scriptBlocks, type ScriptBlock } from "./scriptBlocks.js";
import type { SvelteCompiler, SvelteFragment } from "./svelteTemplate.js";
import { SvelteTemplateCode } from "./svelteTemplateCode.js";

/**
 * Returns a Svelte component as a module: its scripts, then the expressions of its template, which see the declarations
 * of the scripts. Without the framework's compiler, everything in the component may be used.
 */
export function svelteModule({ path, text }: MarkupFile): ComponentModule {
  const blocks = scriptBlocks(text);
  const mapped = new MappedText(text);
  for (const block of blocks) takeScript(mapped, text, block);
  const file = ts.createSourceFile("component.ts", mapped.text, ts.ScriptTarget.Latest, true);
  writeScope(mapped, file, text);
  const fragment = templateOf(text, path, blocks);
  if (fragment) {
    mapped.write(`async function ${own}template() {\n`);
    new SvelteTemplateCode(mapped, text).fragment(fragment);
    mapped.write("}\n");
  } else reachAll(mapped, file);
  return { mapped, ending: ".ts", isTyped: isTyped(blocks) };
}

/** The template's tree, without scripts, because older compilers cannot read scripts with types. */
function templateOf(text: string, path: string, blocks: readonly ScriptBlock[]): SvelteFragment | undefined {
  const compiler = installedModule("svelte/compiler", path) as SvelteCompiler | undefined;
  const blank = (part: string): string => part.replace(/[^\n]/g, " ");
  let markup = "";
  let end = 0;
  for (const block of blocks) {
    markup += text.slice(end, block.start) + blank(text.slice(block.start, block.end));
    end = block.end;
  }
  markup += text.slice(end);
  const withoutStyles = markup.replace(
    /(<style\b[^>]*>)([\s\S]*?)(<\/style\s*>)/gi,
    (_, open: string, inside: string, close: string) => open + blank(inside) + close,
  );
  try {
    return compiler?.parse(withoutStyles, { modern: true }).fragment;
  } catch {
    return undefined;
  }
}

/** A script as it is, with declarations for `$: name = …`. */
function takeScript(mapped: MappedText, text: string, { start, end }: ScriptBlock): void {
  const file = ts.createSourceFile("script.ts", text.slice(start, end), ts.ScriptTarget.Latest, true);
  const { values, imports } = declaredNames(file);
  const known = new Set([...values, ...imports]);
  let at = start;
  for (const statement of file.statements) {
    const assigned = reactiveAssignment(statement);
    if (!assigned || namesOf(assigned.left).every((name) => known.has(name))) continue;
    mapped.take(at, start + statement.getStart()).write(";var ");
    mapped.take(start + assigned.getStart(), start + assigned.getEnd()).write(";");
    at = start + statement.getEnd();
  }
  mapped.take(at, end).write("\n");
}

/** The assignment of `$: name = value` or `$: ({ name } = value)`. */
function reactiveAssignment(statement: ts.Statement): ts.BinaryExpression | undefined {
  if (!ts.isLabeledStatement(statement) || statement.label.text !== "$") return undefined;
  const inside = statement.statement;
  if (!ts.isExpressionStatement(inside)) return undefined;
  const { expression } = inside;
  const bare = ts.isParenthesizedExpression(expression) ? expression.expression : expression;
  return ts.isBinaryExpression(bare) && bare.operatorToken.kind === ts.SyntaxKind.EqualsToken ? bare : undefined;
}

/** The names that the left side of an assignment declares; none if it writes into something. */
function namesOf(left: ts.Expression): string[] {
  const text = left.getText();
  if (ts.isIdentifier(left)) return [text];
  const [statement] = ts.createSourceFile("names.ts", `const ${text} = 0`, ts.ScriptTarget.Latest, true).statements;
  const declared =
    statement && ts.isVariableStatement(statement) ? statement.declarationList.declarations[0] : undefined;
  return declared && !ts.isPropertyAccessExpression(left) && !ts.isElementAccessExpression(left)
    ? boundNames(declared.name)
    : [];
}

/** The names that the framework adds to a component: the values of stores, and exports. */
function writeScope(mapped: MappedText, file: ts.SourceFile, text: string): void {
  const { values, imports } = declaredNames(file);
  mapped.write(`;import type {} from "svelte";\n${anyHelper}${eachHelper}`);
  mapped.write(
    `type ${own}Stored<S> = S extends { subscribe(run: (value: infer T) => any, ...more: any[]): any } ? T : any;
type ${own}Props<C> = C extends (internals: any, props: infer P) => any ? P : C extends { new (options: { props?: infer P }): any } ? P : never;
declare function ${own}snippet<C, N extends keyof ${own}Props<C>>(component: C, name: N, given: unknown, body: NonNullable<${own}Props<C>[N]> extends (...args: infer P) => any ? (...args: P) => any : never): any;
declare function ${own}snippet(component: any, name: string, given: any, body: (...args: any[]) => any): any;
`,
  );
  for (const name of [...values, ...imports])
    if (new RegExp(`\\$${name.replace(/\$/g, "\\$")}(?![\\w$])`).test(text))
      mapped.write(`declare let $${name}: ${own}Stored<typeof ${name}>;\n`);
  if (!/\bexport\s+default\b/.test(file.text))
    mapped.write(`export default null! as (internals: any, props: ${propsType(file)}) => any;\n`);
}

/** The type of `let { … }: Props = $props()`. */
function propsType(file: ts.SourceFile): string {
  for (const statement of file.statements) {
    if (!ts.isVariableStatement(statement)) continue;
    for (const { initializer, type } of statement.declarationList.declarations)
      if (type && initializer?.getText(file).startsWith("$props(")) return type.getText(file);
  }
  return "any";
}
