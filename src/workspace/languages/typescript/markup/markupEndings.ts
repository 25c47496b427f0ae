/** The endings of files that hold code and markup. */
export const markupEndings = [".vue", ".svelte", ".astro", ".mdx", ".html"] as const;
