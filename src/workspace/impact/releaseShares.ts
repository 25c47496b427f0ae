import { parse } from "csv-parse/sync";
import { join } from "node:path";
import type { Release } from "../../core/change/judge/release.js";
import { problem } from "../../core/problem/problem.js";
import { exitCodes, Halt } from "../project/halt.js";
import { printedBy } from "../generate/printedBy.js";
import type { Project } from "../project/project.js";
import { readText } from "../files/textFile.js";

/**
 * Returns the releases of a project with their shares of users, from the configuration, a CSV file or a command that
 * prints one (RFC 4180; with the columns `release` and `share`).
 *
 * @throws Halt if shares cannot be read, are not fractions, or add up to more than 1
 */
export async function releaseShares(project: Project): Promise<Release[]> {
  const { releases = {}, shares } = project.configuration;
  const listed = shares ? await listedShares(project, shares) : new Map<string, number>();
  const known = Object.entries(releases).map(([name, release]): Release => {
    const share = listed.get(name) ?? (typeof release === "string" ? undefined : release.share);
    return { name, ...(share === undefined ? {} : { share }) };
  });
  // Listed releases that are not configured count too: they belong to the rest.
  const others = [...listed].filter(([name]) => !Object.hasOwn(releases, name)).map(([, share]) => share);
  const sum = [...known.flatMap(({ share }) => share ?? []), ...others].reduce((all, share) => all + share, 0);
  if (sum > 1 + roundingError)
    throw invalid(`The sum of all shares is ${String(Math.round(sum * 1000) / 1000)}, which is more than 1.`);
  return known;
}

/**
 * Checks the releases for a gate with shares of users, which must be known for each.
 *
 * @throws Halt if there is no release, or one without a share
 */
export function allShared(releases: readonly Release[]): void {
  const without = releases.find(({ share }) => share === undefined);
  if (releases.length > 0 && !without) return;
  const what = without ? `The release \`${without.name}\` has no share of users` : "No release is configured";
  throw invalid(`${what}, but \`--most-users\` requires them.`);
}

const roundingError = 1e-6;

async function listedShares(
  project: Project,
  { from, run }: NonNullable<Project["configuration"]["shares"]>,
): Promise<Map<string, number>> {
  const source = from === undefined ? `the command \`${run ?? ""}\`` : `\`${from}\``;
  const text = from === undefined ? await printed(project, run ?? "") : fileText(project, from);
  const rows = rowsOf(text, source);
  const found = new Map<string, number>();
  rows.forEach(({ release, share }, at) => {
    const row = `Row ${String(at + 2)} of ${source}`;
    if (release === undefined || share === undefined)
      throw invalid(`${row} has no ${release === undefined ? "release" : "share"}.`);
    const value = /^\s*(?:\d+(?:\.\d*)?|\.\d+)(?:e-?\d+)?\s*$/i.test(share) ? Number(share) : NaN;
    if (!(value >= 0 && value <= 1)) throw invalid(`${row} has the share \`${share}\`, which is not a fraction.`);
    if (found.has(release)) throw invalid(`${row} names the release \`${release}\` again.`);
    found.set(release, value);
  });
  return found;
}

function rowsOf(text: string, source: string): Partial<Record<string, string>>[] {
  try {
    const rows: Partial<Record<string, string>>[] = parse(text, {
      bom: true,
      columns: (names: string[]) => names.map((name) => name.trim().toLowerCase()),
      skip_empty_lines: true,
      trim: true,
    });
    return rows;
  } catch (error) {
    throw invalid(`${source} cannot be read as CSV: ${error instanceof Error ? error.message : String(error)}.`);
  }
}

function fileText(project: Project, path: string): string {
  try {
    return readText(join(project.root, path));
  } catch {
    throw invalid(`There is no file \`${path}\` with the shares of users.`);
  }
}

async function printed(project: Project, command: string): Promise<string> {
  const found = await printedBy(project, command, longestMs);
  if ("failure" in found) throw invalid(`The command \`${command}\` ${found.failure}.`);
  return found.text;
}

const longestMs = 120_000;

function invalid(message: string): Halt {
  return new Halt([problem("shares.invalid", message)], exitCodes.unreadable);
}
