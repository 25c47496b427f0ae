/** A position of a template in its file. */
interface Located {
  readonly loc: { readonly start: { readonly offset: number }; readonly end: { readonly offset: number } };
}

export interface VueExpression extends Located {
  readonly content: string;
  readonly isStatic?: boolean;
}

/** The parts of `v-for`. */
interface VueLoop {
  readonly source: VueExpression;
  readonly value?: VueExpression;
  readonly key?: VueExpression;
  readonly index?: VueExpression;
}

/** An attribute that is a directive; `name` is `if` of `v-if`, `bind` of `:berth`, `on` of `@click`. */
export interface VueDirective extends Located {
  readonly type: typeof vueKinds.directive;
  readonly name: string;
  readonly exp?: VueExpression;
  readonly arg?: VueExpression;
  readonly forParseResult?: VueLoop;
}

interface VueAttribute extends Located {
  readonly type: typeof vueKinds.attribute;
  readonly name: string;
  readonly value?: { readonly content: string };
}

export interface VueElement extends Located {
  readonly type: typeof vueKinds.element;
  readonly tag: string;
  readonly tagType: number;
  readonly props: readonly (VueDirective | VueAttribute)[];
  readonly children: readonly VueNode[];
}

interface VueInterpolation extends Located {
  readonly type: typeof vueKinds.interpolation;
  readonly content: VueExpression;
}

interface VueText extends Located {
  readonly type: 2 | 3;
}

export type VueNode = VueElement | VueInterpolation | VueText;

/** The framework parser's numbers for nodes with code. */
export const vueKinds = { element: 1, interpolation: 5, attribute: 6, directive: 7 } as const;
/** Its numbers for elements. */
export const vueTags = { component: 1, slot: 2 } as const;

/** The part of the framework's compiler that is used. Older versions have no tree of a template. */
export interface VueCompiler {
  readonly parse: (
    text: string,
    options: { readonly filename: string },
  ) => {
    readonly errors: readonly unknown[];
    readonly descriptor: {
      readonly template: {
        readonly ast?: { readonly children: readonly VueNode[] };
        /** A language that becomes HTML first. */
        readonly lang?: string;
        /** The file that contains it instead. */
        readonly src?: string;
      } | null;
    };
  };
}
