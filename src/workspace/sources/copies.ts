import { createHash } from "node:crypto";
import { existsSync } from "node:fs";
import { join } from "node:path";
import type { SourceText } from "../../core/problem/place.js";
import { beginsLikeSchema } from "../../core/graphql/schemaStart.js";
import { publicAddress } from "../../core/text/secrets.js";
import { displayPath, stateFolder, type Project } from "../project/project.js";
import { readText } from "../files/textFile.js";

/** Extensions that show a copy's format. One is added if the address does not end with it. */
const endings = [".json", ".yaml", ".yml", ".graphql", ".gql"];

/**
 * Returns the committed copy of a remote document, `.rhema/copies/<contract>/<host>/<path>`; undefined if it was not
 * fetched yet.
 *
 * @param address the URL as written in the configuration or a reference, or undefined for the output of a command
 */
export function readCopy(project: Project, contract: string, address: string | undefined): SourceText | undefined {
  const unsaved = project.unsaved?.find(contract, address);
  if (unsaved) return unsaved;
  const base = copyBase(project, contract, address);
  const path = [base, ...endings.map((ending) => base + ending)].find(
    (candidate) => endings.some((ending) => candidate.endsWith(ending)) && existsSync(candidate),
  );
  if (path === undefined) return undefined;
  return {
    document: displayPath(project, path),
    text: readText(path),
    ...(address === undefined ? {} : { base: publicAddress(address) }),
  };
}

/**
 * Returns the path for a copy of a text.
 *
 * @param address the URL, or undefined for the output of a command
 */
export function copyPath(
  project: Project,
  contract: string,
  { address, text }: { readonly address: string | undefined; readonly text: string },
): string {
  const base = copyBase(project, contract, address);
  const ending = endings.find((each) => base.endsWith(each));
  if (!isJson(text) && (ending === undefined || ending === ".json") && beginsLikeSchema(text)) return `${base}.graphql`;
  if (ending !== undefined) return base;
  return `${base}${isJson(text) ? ".json" : ".yaml"}`;
}

function isJson(text: string): boolean {
  return /^\s*[[{]/.test(text);
}

const longestName = 60;

function copyBase(project: Project, contract: string, address: string | undefined): string {
  const folder = join(stateFolder(project), "copies", contract);
  if (address === undefined) return join(folder, "output");
  // An address whose host comes from the environment is not valid until it is filled in. Its copy is named after its
  // text.
  if (!URL.canParse(address)) return join(folder, plain(publicAddress(address)));
  const { host, pathname, search } = new URL(address);
  // No part of an address can leave the folder: every segment consists of plain characters.
  const segments = pathname
    .split("/")
    .filter((segment) => segment !== "")
    .map(plain);
  const last = segments.pop() ?? "contract";
  const ending = endings.find((each) => last.endsWith(each)) ?? "";
  const stem = last.slice(0, last.length - ending.length);
  const isLong = stem.length > longestName || search !== "";
  const mark = isLong ? `-${createHash("sha256").update(address).digest("hex").slice(0, 8)}` : "";
  return join(folder, plain(host), ...segments, `${stem.slice(0, longestName)}${mark}${ending}`);
}

function plain(segment: string): string {
  const safe = segment.replace(/[^A-Za-z0-9._-]/g, "_").slice(0, 100);
  return /^\.+$/.test(safe) ? "_" : safe;
}
