import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { dataMember, isData, parseData, textMember, type Data } from "../../core/text/parseData.js";
import { publicAddress } from "../../core/text/secrets.js";
import type { Validators } from "../sources/fetchText.js";
import { stateFolder, type Project } from "../project/project.js";
import { hashOf } from "../files/textFile.js";

/**
 * Returns the version of a stored copy according to its server, for requests that fetch only a newer one. It is
 * undefined if the copy was changed since it was saved.
 */
export function readOrigin(
  project: Project,
  contract: string,
  { address, copy }: { readonly address: string; readonly copy: string | undefined },
): Validators | undefined {
  const entry = dataMember(readOrigins(project, contract), publicAddress(address));
  if (!entry || copy === undefined || textMember(entry, "copy") !== hashOf(copy)) return undefined;
  const etag = textMember(entry, "etag");
  const lastModified = textMember(entry, "lastModified");
  return { ...(etag === undefined ? {} : { etag }), ...(lastModified === undefined ? {} : { lastModified }) };
}

/** The file with the versions from servers. */
export interface OriginsFile {
  /** Absolute. */
  readonly path: string;
  /** Undefined if there is nothing to store. */
  readonly text: string | undefined;
}

/** Returns the file after a server has sent a text. A server that sends no version is removed from it. */
export function originsWith(
  project: Project,
  contract: string,
  address: string,
  { text, ...validators }: Validators & { readonly text: string },
): OriginsFile {
  const key = publicAddress(address);
  const { [key]: _before, ...others } = readOrigins(project, contract);
  const isSaid = Object.keys(validators).length > 0;
  const all = isSaid ? { ...others, [key]: { ...validators, copy: hashOf(text) } } : others;
  const path = originsPath(project, contract);
  if (Object.keys(all).length === 0) return { path, text: undefined };
  const sorted = Object.fromEntries(Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)));
  return { path, text: `${JSON.stringify(sorted, null, 2)}\n` };
}

function originsPath(project: Project, contract: string): string {
  return join(stateFolder(project), "copies", contract, "origins.json");
}

/** A file that cannot be read counts as missing: everything is then fetched. */
function readOrigins(project: Project, contract: string): Data {
  const path = originsPath(project, contract);
  const parsed = existsSync(path) ? parseData(readFileSync(path, "utf8")) : undefined;
  return parsed?.ok === true && isData(parsed.data) ? parsed.data : {};
}
