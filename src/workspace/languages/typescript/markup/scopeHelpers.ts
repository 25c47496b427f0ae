/** Begins every name that is not of the source. */
export const own = "__rhema_";

/** What is handed to it may be read in any way: the scan says of its records that they are reached. */
export const anyHelper = `declare function ${own}any(...values: any): void;\n`;

/** What lists, counts, maps and records give one by one, with their keys. */
export const eachHelper = `declare function ${own}each<I>(list: Iterable<I> | null | undefined): [I, number, number][];
declare function ${own}each(list: number): [number, number, number][];
declare function ${own}each<I>(list: { readonly [key: string]: I }): [I, string, number][];
declare function ${own}each(list: any): [any, string, number][];
`;
