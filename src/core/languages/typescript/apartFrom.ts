/** Returns a module's local name of an import: its own name, unless the module itself exports that. */
export function apartFrom(name: string, exported: readonly string[]): string {
  // No name of a plan contains this character.
  return exported.includes(name) ? `${name}$` : name;
}

/** Returns the name as written in an import. */
export function importedAs(name: string, local: string): string {
  return name === local ? name : `${name} as ${local}`;
}
