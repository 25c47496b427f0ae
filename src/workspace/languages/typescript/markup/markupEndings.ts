/** The extensions of files with code and markup. */
export const markupEndings = [".vue", ".svelte", ".astro", ".mdx", ".html"] as const;
