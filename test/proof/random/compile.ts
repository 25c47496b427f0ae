import { existsSync } from "node:fs";
import ts from "typescript";
import { sharedHost } from "../../support/compiler.js";
import { strictest } from "../../support/strictest.js";

/** The virtual folder of a program's files: next to the real packages, so that their types are found. */
export const virtualFolder = "/virtual";

const { options } = ts.convertCompilerOptionsFromJson(strictest, virtualFolder);

/** Creates a program from files in memory. */
export function programOf(files: ReadonlyMap<string, string>): ts.Program {
  const all = new Map([...files].map(([path, text]) => [`${virtualFolder}/${path}`, text]));
  all.set(`${virtualFolder}/package.json`, '{ "type": "module" }');
  const host = sharedHost(options, (name) => all.has(name));
  const readReal = host.getSourceFile.bind(host);
  host.getSourceFile = (name, settings) => {
    const text = all.get(name);
    return text === undefined ? readReal(name, settings) : ts.createSourceFile(name, text, settings, true);
  };
  host.fileExists = (name) => all.has(name) || (!name.startsWith(virtualFolder) && existsSync(name));
  host.readFile = (name) => all.get(name) ?? ts.sys.readFile(name);
  host.directoryExists = () => true;
  host.getCurrentDirectory = () => virtualFolder;
  const roots = [...all.keys()].filter((name) => name.endsWith(".ts"));
  return ts.createProgram(roots, options, host);
}
