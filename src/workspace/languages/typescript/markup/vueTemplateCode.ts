import { own } from "./scopeHelpers.js";
import type { MappedText } from "./mappedText.js";
import {
  vueKinds,
  vueTags,
  type VueDirective,
  type VueElement,
  type VueExpression,
  type VueNode,
} from "./vueTemplate.js";

/** The expressions of a template as statements. Those of loops and conditions are around those of their content. */
export class VueTemplateCode {
  /** The slots that the template offers, by name: the variable with the values that each passes on. */
  readonly slots = new Map<string, string>();

  constructor(
    private readonly code: MappedText,
    private readonly source: string,
  ) {}

  nodes(children: readonly VueNode[]): void {
    let isChain = false;
    for (const child of children) {
      if (child.type === vueKinds.interpolation) {
        this.value(child.content);
        isChain = false;
      } else if (child.type === vueKinds.element) isChain = this.element(child, isChain);
    }
  }

  /** @returns whether an `else` may follow */
  private element(element: VueElement, isChain: boolean): boolean {
    const condition = directive(element, "if") ?? directive(element, "else-if");
    const otherwise = directive(element, "else");
    const isElse = isChain && (otherwise ?? directive(element, "else-if")) !== undefined;
    if (isElse) this.code.write("else ");
    if (condition?.exp) {
      this.code.write("if (");
      this.expression(condition.exp);
      this.code.write(") ");
    }
    this.code.write("{\n");
    this.looped(element);
    this.code.write("}\n");
    return condition !== undefined;
  }

  private looped(element: VueElement): void {
    const loop = directive(element, "for")?.forParseResult;
    if (!loop) {
      this.inside(element);
      return;
    }
    this.code.write("for (const [");
    for (const each of [loop.value, loop.key, loop.index]) {
      if (each) this.expression(each);
      this.code.write(", ");
    }
    this.code.write(`] of ${own}each(`);
    this.expression(loop.source);
    this.code.write(")) {\n");
    this.inside(element);
    this.code.write("}\n");
  }

  private inside(element: VueElement): void {
    const slot = element.props.find((each): each is VueDirective => isDirective(each) && each.name === "slot");
    for (const each of element.props) if (isDirective(each)) this.directive(each);
    if (element.tagType === vueTags.slot) this.outlet(element);
    if (element.tagType !== vueTags.component) {
      this.nodes(element.children);
      return;
    }
    if (slot) {
      this.given(element, element, slot);
      return;
    }
    for (const child of element.children) {
      const named = child.type === vueKinds.element && child.tag === "template" ? directive(child, "slot") : undefined;
      if (named && child.type === vueKinds.element) this.given(element, child, named);
      else this.nodes([child]);
    }
  }

  /**
   * The values that a component passes to a filled slot. If their type is unknown, they may be anything that the
   * component receives.
   */
  private given(component: VueElement, holder: VueElement, slot: VueDirective): void {
    this.code.write("{\n");
    if (slot.exp) {
      this.code.write("const [");
      this.expression(slot.exp);
      const name = slot.arg?.isStatic === false ? "" : (slot.arg?.content ?? "default");
      this.code.write(`] = ${own}slot(${componentName(component.tag)}, ${JSON.stringify(name)}, [`);
      for (const each of component.props)
        if (isDirective(each) && each.name === "bind" && each.exp) {
          this.expression(each.exp);
          this.code.write(", ");
        }
      this.code.write("]);\n");
    }
    this.nodes(holder.children);
    this.code.write("}\n");
  }

  /** A slot that others fill: the values that it passes to them. */
  private outlet(element: VueElement): void {
    const named = element.props.find((each) => !isDirective(each) && each.name === "name");
    const name = named && !isDirective(named) ? (named.value?.content ?? "default") : "default";
    const variable = `${own}slot${String(this.slots.size)}`;
    this.slots.set(name, variable);
    this.code.write(`var ${variable} = { `);
    for (const each of element.props) {
      if (!isDirective(each) || each.name !== "bind") continue;
      if (!each.arg) {
        if (!each.exp) continue;
        this.code.write("...");
        this.expression(each.exp);
      } else if (each.arg.isStatic !== false && each.arg.content !== "name") {
        this.code.write(`${JSON.stringify(camelCase(each.arg.content))}: (`);
        this.bound(each);
        this.code.write(")");
      } else continue;
      this.code.write(", ");
    }
    this.code.write("};\n");
  }

  private directive(each: VueDirective): void {
    if (each.arg?.isStatic === false) this.value(each.arg);
    switch (each.name) {
      case "if":
      case "else-if":
      case "else":
      case "for":
      case "slot":
        return;
      case "on":
        if (each.exp) this.handler(each.exp);
        return;
      case "model":
        if (!each.exp) return;
        this.value(each.exp);
        this.expression(each.exp);
        this.code.write(" = null! as any;\n");
        return;
      case "bind":
        // Which fields of a record are used depends on the receiver, if all of them are passed on.
        this.code.write(each.arg ? "(" : `${own}any(`);
        this.bound(each);
        this.code.write(");\n");
        return;
      default:
        if (each.exp) this.value(each.exp);
    }
  }

  /** A bound value: an expression, or the variable with the attribute's name. */
  private bound({ exp, arg }: VueDirective): void {
    if (exp) this.expression(exp);
    else if (arg) {
      const name = camelCase(arg.content);
      if (name === arg.content) this.expression(arg);
      else this.code.write(name);
    }
  }

  /** The handler of an event: a function, or statements. */
  private handler(exp: VueExpression): void {
    if (
      /^\s*(?:async\s+)?(?:function\b|\([^)]*\)\s*(?::[^=]*)?=>|[\w$]+\s*=>)|^\s*[\w$]+(?:\.[\w$]+|\[[^\]]*\])*\s*$/.test(
        exp.content,
      )
    ) {
      this.value(exp);
      return;
    }
    this.code.write("(async ($event: any) => { ");
    this.expression(exp);
    this.code.write("\n});\n");
  }

  private value(exp: VueExpression): void {
    this.code.write(";(");
    this.expression(exp);
    this.code.write(");\n");
  }

  private expression({ content, loc }: VueExpression): void {
    const { start, end } = loc;
    if (this.source.slice(start.offset, end.offset) === content) {
      this.code.take(start.offset, end.offset);
      return;
    }
    const at = this.source.indexOf(content, start.offset);
    if (at >= start.offset && at + content.length <= end.offset) this.code.take(at, at + content.length);
    // Text with entities (`&lt;`) differs from the source.
    else this.code.stand(content, start.offset, end.offset);
  }
}

function isDirective(each: VueElement["props"][number]): each is VueDirective {
  return each.type === vueKinds.directive;
}

function directive(element: VueElement, name: string): VueDirective | undefined {
  return element.props.find((each): each is VueDirective => isDirective(each) && each.name === name);
}

/** The script's name of a component: `berth-card` is `BerthCard`. */
function componentName(tag: string): string {
  const name = camelCase(tag);
  return /^[\p{ID_Start}$_][\p{ID_Continue}$.]*$/u.test(name)
    ? name.replace(/^[a-z]/, (first) => first.toUpperCase())
    : "undefined";
}

function camelCase(name: string): string {
  return name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
}
