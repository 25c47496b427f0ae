import type { MappedText } from "./mappedText.js";
import { own } from "./scopeHelpers.js";
import type { SvelteFragment, SvelteNode } from "./svelteTemplate.js";

/** The expressions of a template as statements. Those of blocks are around those of their content. */
export class SvelteTemplateCode {
  constructor(
    private readonly code: MappedText,
    private readonly source: string,
  ) {}

  fragment(fragment: unknown): void {
    for (const node of (fragment as SvelteFragment | null | undefined)?.nodes ?? []) this.node(node);
  }

  private node(node: SvelteNode): void {
    switch (node.type) {
      case "ExpressionTag":
      case "HtmlTag":
      case "RenderTag":
        this.value(part(node, "expression"));
        return;
      case "IfBlock":
        this.condition(node);
        return;
      case "EachBlock":
        this.each(node);
        return;
      case "AwaitBlock":
        this.awaited(node);
        return;
      case "KeyBlock":
        this.value(part(node, "expression"));
        this.fragment(node["fragment"]);
        return;
      case "SnippetBlock":
        this.snippet(node);
        return;
      case "ConstTag":
      case "DeclarationTag":
        this.taken(part(node, "declaration"), ";\n");
        return;
      case "Text":
      case "Comment":
        return;
      default:
        this.element(node);
    }
  }

  private condition(node: SvelteNode): void {
    this.code.write("if (");
    this.taken(part(node, "test"), ") {\n");
    this.fragment(node["consequent"]);
    this.code.write("}\n");
    if (node["alternate"] === null || node["alternate"] === undefined) return;
    this.code.write("else {\n");
    this.fragment(node["alternate"]);
    this.code.write("}\n");
  }

  private each(node: SvelteNode): void {
    const item = part(node, "context");
    const index = typeof node["index"] === "string" ? node["index"] : "";
    this.code.write("for (const [");
    if (item) this.code.take(item.start, item.end);
    this.code.write(`, ${index}] of ${own}each(`);
    this.taken(part(node, "expression"), ")) {\n");
    this.value(part(node, "key"));
    this.fragment(node["body"]);
    this.code.write("}\n");
    this.fragment(node["fallback"]);
  }

  private awaited(node: SvelteNode): void {
    this.fragment(node["pending"]);
    this.code.write("{\nconst ");
    const value = part(node, "value");
    if (value) this.code.take(value.start, value.end);
    else this.code.write(`${own}awaited`);
    this.code.write(" = await (");
    this.taken(part(node, "expression"), ");\n");
    this.fragment(node["then"]);
    this.code.write("}\n{\n");
    const error = part(node, "error");
    if (error) {
      this.code.write("const ");
      this.taken(error, " = null! as any;\n");
    }
    this.fragment(node["catch"]);
    this.code.write("}\n");
  }

  /** A part of a template with parameters. A component's snippet gets their types from the component. */
  private snippet(node: SvelteNode, component?: SvelteNode): void {
    const name = part(node, "expression");
    const parameters = node["parameters"] as readonly SvelteNode[];
    this.code.write("const ");
    if (name) this.code.take(name.start, name.end);
    this.code.write(" = ");
    if (component) {
      const id = name ? this.source.slice(name.start, name.end) : "";
      this.code.write(`${own}snippet(${component.name ?? "undefined"}, ${JSON.stringify(id)}, [`);
      this.given(component);
      this.code.write("], ");
    } else this.code.write("(");
    this.code.write("async (");
    for (const each of parameters) {
      this.code.take(each.start, each.end).write(component || hasType(each) ? ", " : ": any, ");
    }
    this.code.write(") => {\n");
    this.fragment(node["body"]);
    this.code.write("});\n");
  }

  private element(node: SvelteNode): void {
    const isComponent = node.type.endsWith("Component");
    const attributes = (node["attributes"] ?? []) as readonly SvelteNode[];
    this.value(part(node, "expression"));
    this.value(part(node, "tag"));
    for (const each of attributes) this.attribute(each);
    this.code.write("{\n");
    const taken = attributes.filter(({ type }) => type === "LetDirective");
    if (taken.length > 0) {
      // Their types are unknown, so they may be anything that the component receives.
      this.code.write(`${own}any([`);
      this.given(node);
      this.code.write("]);\n");
      for (const each of taken) {
        const pattern = part(each, "expression");
        this.code.write("const ");
        if (pattern) this.code.take(pattern.start, pattern.end);
        else this.code.write(each.name ?? "");
        this.code.write(" = null! as any;\n");
      }
    }
    const children = (node["fragment"] as SvelteFragment | undefined)?.nodes ?? [];
    for (const child of children)
      if (isComponent && child.type === "SnippetBlock") this.snippet(child, node);
      else this.node(child);
    this.code.write("}\n");
  }

  /** The values that a component receives. */
  private given(node: SvelteNode): void {
    for (const each of (node["attributes"] ?? []) as readonly SvelteNode[]) {
      if (each.type === "Attribute") for (const value of valuesOf(each)) this.taken(part(value, "expression"), ", ");
      else if (each.type === "BindDirective") this.taken(part(each, "expression"), ", ");
    }
  }

  private attribute(each: SvelteNode): void {
    switch (each.type) {
      case "Attribute":
      case "StyleDirective":
        for (const value of valuesOf(each)) this.value(part(value, "expression"));
        return;
      case "SpreadAttribute":
        // Which fields of a record are used depends on the receiver.
        this.code.write(`${own}any(`);
        this.taken(part(each, "expression"), ");\n");
        return;
      case "BindDirective": {
        const bound = part(each, "expression");
        this.value(bound);
        if (bound && bound.type !== "SequenceExpression") this.taken(bound, " = null! as any;\n");
        return;
      }
      case "LetDirective":
        return;
      default:
        this.value(part(each, "expression"));
    }
  }

  private value(node: SvelteNode | undefined): void {
    if (!node) return;
    this.code.write(";(");
    this.taken(node, ");\n");
  }

  private taken(node: SvelteNode | undefined, after: string): void {
    if (node) this.code.take(node.start, node.end);
    this.code.write(after);
  }
}

function part(node: SvelteNode, name: string): SvelteNode | undefined {
  const found = node[name];
  return typeof found === "object" && found !== null && "start" in found ? (found as SvelteNode) : undefined;
}

/** The code in an attribute. */
function valuesOf({ value }: SvelteNode): SvelteNode[] {
  const parts = Array.isArray(value) ? (value as SvelteNode[]) : [value as SvelteNode | true];
  return parts.filter((each): each is SvelteNode => each !== true && each.type === "ExpressionTag");
}

function hasType(parameter: SvelteNode): boolean {
  return parameter["typeAnnotation"] !== undefined && parameter["typeAnnotation"] !== null;
}
