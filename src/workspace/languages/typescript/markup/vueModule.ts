import ts from "typescript";
import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { declaredNames } from "./declaredNames.js";
import { installedModule } from "./frameworkCompiler.js";
import { MappedText } from "./mappedText.js";
import { reachAll } from "./reachAll.js";
import { anyHelper, eachHelper, own } from "./scopeHelpers.js";
import { holdsElements, isTyped, scriptBlocks, type ScriptBlock } from "./scriptBlocks.js";
import type { VueCompiler, VueNode } from "./vueTemplate.js";
import { VueTemplateCode } from "./vueTemplateCode.js";

/**
 * Returns a Vue component as a module: its scripts, then the expressions of its template in the scope of the framework.
 * If something cannot be read (a template in another language, a framework that is not installed), everything in the
 * component may be used.
 */
export function vueModule({ path, text }: MarkupFile): ComponentModule {
  const blocks = scriptBlocks(text);
  const mapped = new MappedText(text);
  const setup = blocks.find(({ attributes }) => /(^|\s)setup(\s|=|$)/.test(attributes));
  const component = setup ? undefined : defaultExport(text, blocks);
  for (const block of blocks) takeScript(mapped, block, component);
  const file = parsed(mapped.text);
  writeScope(mapped, file, { setup, component });
  const children = templateOf(text, path);
  if (children) writeTemplate(mapped, text, { children, file });
  else reachScope(mapped, text, file);
  return { mapped, ending: holdsElements(blocks) ? ".tsx" : ".ts", isTyped: isTyped(blocks) };
}

/**
 * Records that a template which cannot be read may use everything it sees, as far as types are known without the
 * framework.
 */
function reachScope(mapped: MappedText, text: string, file: ts.SourceFile): void {
  const at = text.search(/<template\b/);
  const types = propsOf(file)[0]?.typeArguments?.map((type) => type.getText(file)) ?? [];
  for (const type of [`${own}Scope`, ...types])
    mapped
      .write(`${own}any(`)
      .stand(`null! as ${type}`, at, at + "<template".length)
      .write(");\n");
  reachAll(mapped, file);
}

/** The template's tree, if the app has the framework's compiler; empty if there is no template. */
function templateOf(text: string, path: string): readonly VueNode[] | undefined {
  if (!/<template\b/.test(text)) return [];
  const compiler = installedModule("vue/compiler-sfc", path) as VueCompiler | undefined;
  try {
    const parsed = compiler?.parse(text, { filename: path });
    if (!parsed || parsed.errors.length > 0) return undefined;
    const { template } = parsed.descriptor;
    if (template === null) return [];
    const isHtml = template.src === undefined && (template.lang === undefined || template.lang === "html");
    return isHtml ? template.ast?.children : undefined;
  } catch {
    return undefined;
  }
}

/** The default export of a script, which is the component. */
interface DefaultExport {
  /** The start of the statement, and of the expression. */
  readonly statement: number;
  readonly start: number;
  readonly end: number;
  /** Whether it is a plain record, from which the framework makes a component. */
  readonly isPlain: boolean;
}

function defaultExport(text: string, blocks: readonly ScriptBlock[]): DefaultExport | undefined {
  for (const { start, end } of blocks)
    for (const statement of parsed(text.slice(start, end)).statements) {
      if (!ts.isExportAssignment(statement)) continue;
      const { expression } = statement;
      return {
        statement: start + statement.getStart(),
        start: start + expression.getStart(),
        end: start + expression.getEnd(),
        isPlain: ts.isObjectLiteralExpression(expression),
      };
    }
  return undefined;
}

function takeScript(mapped: MappedText, { start, end }: ScriptBlock, component: DefaultExport | undefined): void {
  if (component && component.statement >= start && component.end <= end) {
    mapped
      .take(start, component.statement)
      .write(`const ${own}component = ${component.isPlain ? `${own}vue.defineComponent(` : "("}`);
    mapped.take(component.start, component.end).write(");").take(component.end, end);
  } else mapped.take(start, end);
  mapped.write("\n");
}

/** The template's scope as a type, and the exports. */
function writeScope(
  mapped: MappedText,
  file: ts.SourceFile,
  { setup, component }: { readonly setup: ScriptBlock | undefined; readonly component: DefaultExport | undefined },
): void {
  const { values, imports } = declaredNames(file);
  mapped.write(`;declare const ${own}vue: typeof import("vue");\n${anyHelper}${eachHelper}`);
  mapped.write(
    `type ${own}Slots<C> = C extends new (...args: any) => { $slots: infer S } ? S : never;
type ${own}Known<S> = string extends keyof S ? never : keyof S;
declare function ${own}slot<C, N extends ${own}Known<${own}Slots<C>>>(component: C, name: N, given: unknown): NonNullable<${own}Slots<C>[N]> extends (...args: infer P) => any ? P : never;
declare function ${own}slot(component: any, name: string, given: any): any[];
type ${own}At<K extends string> = K extends keyof ${own}Scope ? ${own}Scope[K] : any;
`,
  );
  if (!setup) {
    mapped.write(
      component
        ? `type ${own}Scope = InstanceType<typeof ${own}component>;\nexport default ${own}component;\n`
        : `type ${own}Scope = {};\n${hasDefault(file) ? "" : `export default null! as { new (): { $slots: {} } };\n`}`,
    );
    return;
  }
  const [call, name] = propsOf(file);
  if (name === undefined && call)
    mapped.write(`const ${own}props = ${file.text.slice(call.getStart(file), call.getEnd())};\n`);
  const props = call ? `typeof ${name ?? `${own}props`}` : "{}";
  const seen = [...values, ...imports].filter((each) => !each.startsWith(own));
  mapped.write(
    `const ${own}bindings = { ${seen.join(", ")} };
type ${own}Props = ${props};
type ${own}Scope = Omit<import("vue").ComponentPublicInstance, keyof ${own}Props | keyof typeof ${own}bindings> & ${own}Props & import("vue").ShallowUnwrapRef<typeof ${own}bindings>;
`,
  );
}

function writeTemplate(
  mapped: MappedText,
  text: string,
  { children, file }: { readonly children: readonly VueNode[]; readonly file: ts.SourceFile },
): void {
  const body = new MappedText(text);
  const code = new VueTemplateCode(body, text);
  code.nodes(children);
  const used = namesIn(body);
  const imports = new Set(declaredNames(file).imports);
  // A call of an import is recognised by its name, which the scope hides.
  mapped.write(`function ${own}names() {\n`);
  for (const { name, at } of used) if (imports.has(name)) mapped.take(at, at + name.length).write(";\n");
  mapped.write(`}\nasync function ${own}template() {\n`);
  for (const name of new Set(used.map((each) => each.name)))
    mapped.write(`let ${name} = null! as ${own}At<"${name}">;\n`);
  mapped.append(body);
  const slots = [...code.slots].map(
    ([name, variable]) => `${JSON.stringify(name)}?: (props: typeof ${variable}) => any`,
  );
  mapped.write(`return null! as { ${slots.join("; ")} };\n}\n`);
  if (!/\bexport\s+default\b/.test(file.text) && !file.text.includes(`${own}component`))
    mapped.write(
      `export default null! as { new (): { $slots: Awaited<ReturnType<typeof ${own}template>>; $props: ${file.text.includes("defineProps") ? `${own}Props` : "{}"} } };\n`,
    );
}

/** The call that declares props, and the variable with them, if there is one. */
function propsOf(file: ts.SourceFile): [ts.CallExpression?, string?] {
  for (const statement of file.statements) {
    if (ts.isExpressionStatement(statement) && isPropsCall(statement.expression)) return [statement.expression];
    if (!ts.isVariableStatement(statement)) continue;
    for (const { name, initializer } of statement.declarationList.declarations)
      if (initializer && isPropsCall(initializer))
        return ts.isIdentifier(name) ? [initializer, name.text] : [initializer];
  }
  return [];
}

function isPropsCall(node: ts.Expression): node is ts.CallExpression {
  return (
    ts.isCallExpression(node) &&
    ts.isIdentifier(node.expression) &&
    /^(defineProps|withDefaults)$/.test(node.expression.text)
  );
}

function hasDefault(file: ts.SourceFile): boolean {
  return /\bexport\s+default\b|\bas\s+default\b/.test(file.text);
}

/** Names in the code of a template that may be variables of its scope, with their place in the source. */
function namesIn(body: MappedText): { readonly name: string; readonly at: number }[] {
  const found: { name: string; at: number }[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node) && !isMember(node) && !globals.has(node.text) && !node.text.startsWith(own)) {
      const at = body.sourceOffset(node.getStart());
      found.push({ name: node.text, at: at ?? -1 });
    }
    ts.forEachChild(node, visit);
  };
  visit(parsed(body.text));
  return found.filter(({ at, name }) => at >= 0 || /^[\w$]+$/.test(name));
}

function isMember(node: ts.Identifier): boolean {
  const { parent } = node;
  return (
    (ts.isPropertyAccessExpression(parent) && parent.name === node) ||
    (ts.isPropertyAssignment(parent) && parent.name === node) ||
    (ts.isBindingElement(parent) && parent.propertyName === node) ||
    ts.isTypeReferenceNode(parent) ||
    ts.isQualifiedName(parent)
  );
}

/** The names that templates see besides their component's. */
const globals = new Set(
  "Infinity,undefined,NaN,isFinite,isNaN,parseFloat,parseInt,decodeURI,decodeURIComponent,encodeURI,encodeURIComponent,Math,Number,Date,Array,Object,Boolean,String,RegExp,Map,Set,JSON,Intl,BigInt,console,Error,Symbol".split(
    ",",
  ),
);

function parsed(text: string): ts.SourceFile {
  return ts.createSourceFile("component.tsx", text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TS);
}
