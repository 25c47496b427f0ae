import { isBlock, type AppBlock, type AppNode } from "./appTree.js";

export type ComponentKind = "vue" | "svelte";

/** A function of an app, as a component that reads in its template what the function reads in its body. */
export interface AppComponent {
  readonly kind: ComponentKind;
  readonly text: string;
  /** The function with each value written where it is used, as templates require. */
  readonly node: AppNode;
  /** The rest of the function, for others that call it. */
  readonly stub: readonly AppNode[];
}

/**
 * Returns a component.
 *
 * @param others the functions of the app, of which the template may call some
 * @returns undefined for code that templates cannot contain
 */
export function componentOf(
  node: AppNode,
  {
    others,
    index,
    kind,
  }: { readonly others: readonly AppNode[]; readonly index: string; readonly kind: ComponentKind },
): AppComponent | undefined {
  if (!isBlock(node)) return undefined;
  const [, prop] = /^function use\w+\(value: (sdk\.\w+)\): void \{$/.exec(node.text) ?? [];
  const isCall = /^export async function call\d+\(\) \{$/.test(node.text);
  // Svelte awaits nothing at the start of a component.
  const answer =
    kind === "vue" && isCall ? node.inside.find(({ text }) => text.includes("const answer = await ")) : undefined;
  if (prop === undefined && !answer) return undefined;
  const inlined = withoutNames(node);
  const body = inlined.inside.filter((each) => each.line !== answer?.line && !isVoid(each));
  const template = new Template(kind);
  const shown = template.written(body);
  if (shown === undefined || shown === "") return undefined;
  const said = new Set([...shown.matchAll(/\buse\w+(?=\()/g)].map(([name]) => name));
  const readers = others.filter(({ declares }) => declares !== undefined && said.has(declares));
  const script = [
    `import * as sdk from "./${index}";`,
    'const text: string = "";',
    ...template.takes,
    ...readers.map(({ text }) => `${text.replace(": void {", ": string {")} return typeof value; }`),
    prop === undefined ? (answer?.text.trim() ?? "") : propsOf(kind, prop),
  ].join("\n");
  return {
    kind,
    text:
      kind === "vue"
        ? `<script setup lang="ts">\n${script}\n</script>\n<template>\n<div>\n${shown}\n</div>\n</template>\n`
        : `<script lang="ts">\n${script}\n</script>\n${shown}\n`,
    node: inlined,
    stub: prop === undefined ? [] : [{ ...node, inside: node.inside.filter(isVoid) } satisfies AppBlock],
  };
}

function isVoid({ text }: AppNode): boolean {
  return /^\s*void \w+;$/.test(text);
}

function propsOf(kind: ComponentKind, type: string): string {
  return kind === "vue" ? `defineProps<{ value: ${type} }>();` : `const { value }: { value: ${type} } = $props();`;
}

/** A block with the values of constants in place of their names. */
function withoutNames(block: AppBlock): AppBlock {
  const names = new Map<string, string>();
  const said = (text: string): string =>
    text.replace(/"[^"]*"|(?<![.\w])[ocv]\d+\b/g, (word) => names.get(word) ?? word);
  const rewritten = (node: AppNode): AppNode[] => {
    const [, name, value] = /^\s*const ([ocv]\d+) = (.*);$/.exec(node.text) ?? [];
    if (name !== undefined && value !== undefined) {
      names.set(name, said(value));
      return [];
    }
    const text = said(node.text);
    return [isBlock(node) ? { ...node, text, inside: node.inside.flatMap(rewritten) } : { ...node, text }];
  };
  return { ...block, inside: block.inside.flatMap(rewritten) };
}

/** Markup that reads what statements read. */
class Template {
  /** Functions of the script with a parameter of one type. */
  readonly takes: string[] = [];

  constructor(private readonly kind: ComponentKind) {}

  /** @returns undefined if a statement cannot be written */
  written(nodes: readonly AppNode[]): string | undefined {
    const parts = nodes.map((node) => this.part(node));
    return parts.includes(undefined) ? undefined : parts.join("\n");
  }

  private part(node: AppNode): string | undefined {
    const text = node.text.trim();
    if (isBlock(node)) {
      const inside = this.written(node.inside);
      if (inside === undefined) return undefined;
      const [, condition] = /^if \((.*)\) \{$/.exec(text) ?? [];
      if (condition !== undefined) return this.when(condition, inside);
      const [, each, list] = /^for \(const (\w+) of (.*)\) \{$/.exec(text) ?? [];
      return each === undefined || list === undefined ? undefined : this.each(each, list, inside);
    }
    const [, condition] = /^if \((.*)\) count\+\+;$/.exec(text) ?? [];
    if (condition !== undefined) return this.when(condition, "<i></i>");
    const [, type, value] = /^const \w+: (.+?) = (.*);$/.exec(text) ?? [];
    if (type !== undefined && value !== undefined) {
      const name = `take${String(this.takes.length)}`;
      this.takes.push(`function ${name}(value: ${type}): string { return typeof value; }`);
      return this.shown(`${name}(${value})`);
    }
    const [, used] = /^(use\w+\(.*\));$/.exec(text) ?? [];
    return used === undefined ? undefined : this.shown(used);
  }

  private when(condition: string, inside: string): string {
    return this.kind === "vue"
      ? `<template v-if="${attribute(condition)}">\n${inside}\n</template>`
      : `{#if ${condition}}\n${inside}\n{/if}`;
  }

  private each(name: string, list: string, inside: string): string {
    return this.kind === "vue"
      ? `<template v-for="${name} in ${attribute(list)}">\n${inside}\n</template>`
      : `{#each ${list} as ${name}}\n${inside}\n{/each}`;
  }

  private shown(value: string): string {
    return this.kind === "vue" ? `<i :title="${attribute(value)}"></i>` : `<i title={${value}}></i>`;
  }
}

function attribute(text: string): string {
  return text.replaceAll("&", "&amp;").replaceAll('"', "&quot;").replaceAll("<", "&lt;");
}
