/** What a module calls something that it imports: its own name, unless the module itself exports that. */
export function apartFrom(name: string, exported: readonly string[]): string {
  // No name of a plan holds this sign.
  return exported.includes(name) ? `${name}$` : name;
}

/** The same as an import writes it. */
export function importedAs(name: string, local: string): string {
  return name === local ? name : `${name} as ${local}`;
}
