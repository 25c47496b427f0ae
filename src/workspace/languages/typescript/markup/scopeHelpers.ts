/** The prefix of every name that is not from the source. */
export const own = "__rhema_";

/** Its arguments may be read in any way: the scan records their records as used. */
export const anyHelper = `declare function ${own}any(...values: any): void;\n`;

/** The items of lists, counts, maps and records, with their keys. */
export const eachHelper = `declare function ${own}each<I>(list: Iterable<I> | null | undefined): [I, number, number][];
declare function ${own}each(list: number): [number, number, number][];
declare function ${own}each<I>(list: { readonly [key: string]: I }): [I, string, number][];
declare function ${own}each(list: any): [any, string, number][];
`;
