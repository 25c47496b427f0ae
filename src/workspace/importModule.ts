/** Imports a module by its URL, which compiled code that was kept cannot do by itself. */
export type ModuleImporter = (url: string) => Promise<unknown>;

let importer: ModuleImporter = (url) => import(url) as Promise<unknown>;

/** The exports of a module. */
export function importModule(url: string): Promise<unknown> {
  return importer(url);
}

/** Lets modules be imported by what loaded the program. */
export function importModulesBy(other: ModuleImporter): void {
  importer = other;
}
