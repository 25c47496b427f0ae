import { resolve } from "node:path";
import { isUrl } from "../../core/rest/documentNames.js";
import type { SourceText } from "../../core/problem/place.js";
import { problem } from "../../core/problem/problem.js";
import { publicAddress, type Secrets } from "../../core/text/secrets.js";
import { exitCodes, Halt } from "../project/halt.js";
import { readPin } from "../generate/pins.js";
import { displayPath, type Project } from "../project/project.js";
import { pinAt, Revision, revisionMark } from "../sources/revisions.js";
import { sourceList } from "../sources/sources.js";
import { readText } from "../files/textFile.js";

/** The texts of one side of a comparison. */
export interface SideTexts {
  readonly texts: readonly SourceText[];
  /** Its name in reports if the contract has no version. */
  readonly label: string;
  /** The query documents of the SDK at that time, if they are known. */
  readonly operations?: SourceText | undefined;
}

/**
 * Finds one side of a comparison: "pin", the name of a release, `git:REVISION`, a URL, or a file.
 *
 * @returns undefined for a pin that does not exist yet, and for a revision without the contract
 * @throws Halt if the given place does not exist
 */
export async function sideTexts(
  project: Project | undefined,
  contract: string,
  { spec, cwd }: { readonly spec: string; readonly cwd: string },
): Promise<SideTexts | undefined> {
  if (project && spec === "pin") {
    const pin = pinOf(project, contract);
    return pin && { texts: [pin], label: "pin" };
  }
  const release = project?.configuration.releases?.[spec];
  if (release !== undefined) {
    const at = typeof release === "string" ? release : release.at;
    const side = await sideTexts(project, contract, { spec: at, cwd: project?.root ?? cwd });
    return side && { ...side, label: spec };
  }
  if (project && spec.startsWith(revisionMark)) return sideAt(project, contract, spec.slice(revisionMark.length));
  if (isUrl(spec)) return { texts: [await remote(spec, project?.secrets)], label: publicAddress(spec) };
  return { texts: [fileText(spec, cwd, project)], label: spec };
}

/** Returns the pin of a contract, from any SDK that covers it. */
export function pinOf(project: Project, contract: string): SourceText | undefined {
  const sdks = Object.entries(project.configuration.sdks).filter(([, { covers }]) => covers.includes(contract));
  for (const [sdk] of sdks.sort(([a], [b]) => (a < b ? -1 : 1))) {
    const pin = readPin(project, sdk, contract);
    if (pin) return pin;
  }
  return undefined;
}

/** The committed texts: the pin that the SDK was made from, otherwise the contract's own files, if it had any. */
function sideAt(project: Project, contract: string, name: string): SideTexts | undefined {
  const revision = new Revision(project.root, name);
  project.trace(() => `read the contract from git at ${name}`);
  const pinned = pinAt(project, revision, contract);
  if (pinned) return { texts: [pinned.pin], label: name, operations: pinned.operations };
  const sources = sourceList(project.configuration.contracts[contract] ?? { from: [] }).filter((each) => !isUrl(each));
  const paths = sources.flatMap((source) => revision.filesBelow(source));
  const texts = paths.flatMap((path) => revision.file(path) ?? []);
  return texts.length > 0 ? { texts, label: name } : undefined;
}

async function remote(address: string, secrets: Secrets | undefined): Promise<SourceText> {
  if (URL.canParse(address)) secrets?.learnAddress(new URL(address));
  const { fetchText } = await import("../sources/fetchText.js");
  const fetched = await fetchText(address, address, { headers: {}, hosts: [], timeoutMs: 30_000 });
  if ("problem" in fetched) throw new Halt([fetched.problem], exitCodes.unreadable);
  if ("isSame" in fetched) throw new Error("There was no earlier version to compare with.");
  return { document: publicAddress(address), text: fetched.text };
}

function fileText(path: string, cwd: string, project: Project | undefined): SourceText {
  const absolute = resolve(cwd, path);
  const document = project ? displayPath(project, absolute) : path;
  try {
    return { document, text: readText(absolute) };
  } catch {
    const known = ["pin", ...Object.keys(project?.configuration.releases ?? {})].map((each) => `\`${each}\``);
    const hint = project ? `Use a file, a URL, \`git:REVISION\`, or one of ${known.join(", ")}.` : "Check the path.";
    throw new Halt(
      [problem("contract.missing", `There is no contract file \`${path}\`.`, { hint })],
      exitCodes.unreadable,
    );
  }
}
