import type { ComponentModule, MarkupFile } from "./componentModule.js";
import { markupEndings } from "./markupEndings.js";
import { pageModule } from "./pageModule.js";
import { svelteModule } from "./svelteModule.js";
import { unreadModule } from "./unreadModule.js";
import { vueModule } from "./vueModule.js";

const readers: Readonly<Record<(typeof markupEndings)[number], (file: MarkupFile) => ComponentModule>> = {
  ".vue": vueModule,
  ".svelte": svelteModule,
  ".astro": unreadModule,
  ".mdx": unreadModule,
  ".html": pageModule,
};

/** Returns a file with markup as a module; undefined for every other file. */
export function componentModule(file: MarkupFile): ComponentModule | undefined {
  const ending = markupEndings.find((each) => file.path.endsWith(each));
  return ending === undefined ? undefined : readers[ending](file);
}
