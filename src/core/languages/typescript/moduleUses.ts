import type { Import } from "./moduleText.js";

/** Other modules of an SDK, as far as a text names something of them. */
export type OtherModule = "wire" | "formats" | "conversions" | "checks";

/** Is told what a text names, so that its module imports it. */
export interface Uses {
  /** A type that stands in the contract's `shapes`. */
  type(identifier: string): void;
  /** @param isValue it is named where a value is wanted, and not only as a type */
  module(module: OtherModule, isValue: boolean): void;
}

/** For texts that are thrown away. */
export const noUses: Uses = { type: () => undefined, module: () => undefined };

/** What one module of a contract names. */
export class ModuleUses implements Uses {
  readonly types = new Set<string>();
  private readonly modules = new Map<OtherModule, boolean>();

  type(identifier: string): void {
    this.types.add(identifier);
  }

  module(module: OtherModule, isValue: boolean): void {
    this.modules.set(module, isValue || this.modules.get(module) === true);
  }

  /** Takes out the types that stand in the module itself. */
  without(identifiers: Iterable<string>): this {
    for (const identifier of identifiers) this.types.delete(identifier);
    return this;
  }

  /**
   * The imports of everything that was named.
   *
   * @param ending of relative imports
   * @param up from the module to the contract's folder
   */
  imports(ending: string, up: "." | ".."): Import[] {
    return [
      ...(this.types.size > 0 ? [{ from: `${up}/shapes${ending}`, types: this.types }] : []),
      ...this.namespaces(ending, up),
    ];
  }

  /** The imports of other modules as a whole, without those of single types. */
  namespaces(ending: string, up: "." | ".."): Import[] {
    const root = up === "." ? ".." : "../..";
    const from: Readonly<Record<OtherModule, string>> = {
      wire: `${root}/wire/index${ending}`,
      formats: `${root}/formats${ending}`,
      conversions: `${up}/conversions${ending}`,
      checks: `${up}/checks${ending}`,
    };
    return [...this.modules].map(([module, isValue]) => ({
      from: from[module],
      namespace: module,
      namespaceIsType: !isValue,
    }));
  }
}
