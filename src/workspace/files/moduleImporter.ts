/** Imports a module by its URL, which cached compiled code cannot do itself. */
export type ModuleImporter = (url: string) => Promise<unknown>;
