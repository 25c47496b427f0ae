// Collects the licences of the packages whose code is in a bundle.
import { existsSync, readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";

const licenceFile = /^(licen[cs]e|copying|notice)([-.].*)?$/i;

/** Returns the folders of packages whose files are in a bundle, each once. */
export function bundledPackages(metafiles) {
  const folders = new Set();
  for (const { inputs } of metafiles)
    for (const path of Object.keys(inputs)) {
      const [folder] = /^.*node_modules\/(?:@[^/]+\/)?[^/]+/.exec(path) ?? [];
      if (folder !== undefined) folders.add(folder);
    }
  return [...folders].sort();
}

/**
 * Returns one text with the name, version and licence of every bundled package.
 *
 * @throws Error if a package has no licence text
 */
export function bundledLicences(metafiles) {
  const sections = bundledPackages(metafiles).map((folder) => {
    const { name, version, license } = JSON.parse(readFileSync(join(folder, "package.json"), "utf8"));
    const files = existsSync(folder) ? readdirSync(folder).filter((file) => licenceFile.test(file)) : [];
    if (files.length === 0) throw new Error(`The package ${name} is bundled and has no licence text.`);
    const texts = files.sort().map((file) => readFileSync(join(folder, file), "utf8").trim());
    return `${name} ${version} (${license})\n\n${texts.join("\n\n")}`;
  });
  return `Rhema contains code of these packages.\n\n${sections.join(`\n\n${"-".repeat(80)}\n\n`)}\n`;
}
