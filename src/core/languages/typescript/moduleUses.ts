import type { Import } from "./moduleText.js";

/** The other modules of an SDK that a text can use. */
export type OtherModule = "wire" | "formats" | "conversions" | "checks";

/** Records the names in a text, so that its module imports them. */
export interface Uses {
  /** Records a type of the contract's `shapes`. */
  type(identifier: string): void;
  /** Records a module. @param isValue whether it is used as a value, not only as a type */
  module(module: OtherModule, isValue: boolean): void;
}

/** For texts that are not printed. */
export const noUses: Uses = { type: () => undefined, module: () => undefined };

/** The names that one module of a contract uses. */
export class ModuleUses implements Uses {
  readonly types = new Set<string>();
  private readonly modules = new Map<OtherModule, boolean>();

  type(identifier: string): void {
    this.types.add(identifier);
  }

  module(module: OtherModule, isValue: boolean): void {
    this.modules.set(module, isValue || this.modules.get(module) === true);
  }

  /** Removes the types that the module itself declares. */
  without(identifiers: Iterable<string>): this {
    for (const identifier of identifiers) this.types.delete(identifier);
    return this;
  }

  /**
   * Returns the imports of all recorded names.
   *
   * @param ending the extension of relative imports
   * @param up the path from the module to the contract's folder
   */
  imports(ending: string, up: "." | ".."): Import[] {
    return [
      ...(this.types.size > 0 ? [{ from: `${up}/shapes${ending}`, types: this.types }] : []),
      ...this.namespaces(ending, up),
    ];
  }

  /** Returns the imports of whole modules, without those of single types. */
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
