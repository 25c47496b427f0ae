/** Imports a module by its URL, which compiled code that was kept cannot do by itself. */
export type ModuleImporter = (url: string) => Promise<unknown>;
