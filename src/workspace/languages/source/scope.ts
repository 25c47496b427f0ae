import type { FunctionText } from "./declared.js";
import type { Told } from "./told.js";
import type { Home, Type } from "./knownProgram.js";

/** A variable that gets the value of SDK members once, with its places. */
export interface Holder {
  readonly read: readonly Told[];
  /** The uses from which it was calculated. */
  readonly computed?: readonly Told[];
  readonly places: Told[];
}

/** What names mean at a place inside a body. */
export class Scope {
  private readonly variables = new Map<string, Type | undefined>();
  private readonly holders = new Map<string, Holder>();
  private readonly narrowed = new Map<string, Type>();
  readonly functions = new Map<string, FunctionText>();

  constructor(
    readonly home: Home,
    /** The types of `this`, innermost first. */
    readonly receivers: readonly Type[],
    private readonly outer?: Scope,
  ) {}

  inside(receivers: readonly Type[] = this.receivers): Scope {
    return new Scope(this.home, receivers, this);
  }

  declare(name: string, type: Type | undefined): void {
    this.variables.set(name, type);
    this.holders.delete(name);
    for (const path of [...this.narrowed.keys()])
      if (path === name || path.startsWith(`${name}.`)) this.narrowed.delete(path);
  }

  /** Records the value of a variable that was declared here. */
  hold(name: string, holder: Holder): void {
    this.holders.set(name, holder);
  }

  holder(name: string): Holder | undefined {
    return this.variables.has(name) ? this.holders.get(name) : this.outer?.holder(name);
  }

  has(name: string): boolean {
    return this.variables.has(name) || this.outer?.has(name) === true;
  }

  variable(name: string): Type | undefined {
    return this.variables.has(name) ? this.variables.get(name) : this.outer?.variable(name);
  }

  localFunction(name: string): FunctionText | undefined {
    return this.functions.get(name) ?? this.outer?.localFunction(name);
  }

  /** Records that the value at a path has a type from here on. */
  narrow(path: string, type: Type): void {
    this.narrowed.set(path, type);
  }

  narrowedType(path: string): Type | undefined {
    const own = this.narrowed.get(path);
    if (own) return own;
    const [root = ""] = path.split(".");
    return this.variables.has(root) ? undefined : this.outer?.narrowedType(path);
  }
}
