import { execFile } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { promisify } from "node:util";
import { isUrl } from "../core/rest/documentNames.js";
import { problem, type Problem } from "../core/problem/problem.js";
import { copyPath, readCopy } from "./copies.js";
import { fetchText } from "./fetchText.js";
import { exitCodes, Halt } from "./halt.js";
import type { Project } from "./project.js";
import { sourceList } from "./sources.js";

const timeoutMs = 30_000;
const mostOutput = 128 * 1024 * 1024;

/**
 * Sees to it that every contract from a URL or a command has its copy.
 *
 * @param fresh also replace copies that are there
 * @throws Halt (unreadable) when one cannot be had and there is no copy to go on with
 */
export async function obtainCopies(project: Project, contracts: Iterable<string>, fresh: boolean): Promise<Problem[]> {
  const problems: Problem[] = [];
  for (const contract of contracts) {
    const settings = project.configuration.contracts[contract];
    if (!settings) continue;
    const { from } = settings;
    if (typeof from === "object" && "run" in from) {
      const known = readCopy(project, contract, undefined);
      if (!known || fresh)
        problems.push(...settle(project, contract, await runCommand(project, contract, from.run), known !== undefined));
      continue;
    }
    for (const source of sourceList(settings).filter(isUrl)) {
      const known = readCopy(project, contract, source);
      if (!known || fresh)
        problems.push(...settle(project, contract, await obtain(project, contract, source), known !== undefined));
    }
  }
  return problems;
}

/** Without a copy there is nothing to go on with; with one, a failure is only a warning. */
function settle(project: Project, contract: string, failure: Problem | undefined, hasCopy: boolean): Problem[] {
  if (!failure) return [];
  const place = { document: project.configName, pointer: `/contracts/${contract}/from` };
  if (!hasCopy)
    throw new Halt(
      [{ ...failure, places: [place] }],
      exitCodes.unreadable,
      new Map([[project.configName, project.configText]]),
    );
  return [{ ...failure, level: "warning", places: [place], why: "The copy that was there is used instead." }];
}

/** Fetches one document of a contract and saves its copy; the problem when it cannot be had. */
export async function obtain(project: Project, contract: string, address: string): Promise<Problem | undefined> {
  const settings = project.configuration.contracts[contract] ?? { from: [] };
  const expanded = expand(address, contract);
  const headers = Object.fromEntries(
    Object.entries(settings.headers ?? {}).map(([name, value]) => [name, expand(value, contract)]),
  );
  if (!URL.canParse(expanded) || !/^https?:/i.test(expanded))
    return problem("contract.fetch", `\`${address}\` is no address that can be fetched.`, {
      hint: "Use http: or https:.",
    });
  const isOwn = sourceList(settings).some((source) => source === address || sameOrigin(source, address));
  const fetched = await fetchText(expanded, address, {
    headers: isOwn ? headers : {},
    hosts: settings.hosts ?? [],
    timeoutMs,
  });
  if ("problem" in fetched) return fetched.problem;
  save(copyPath(project, contract, address, fetched.text), fetched.text);
  return undefined;
}

function sameOrigin(a: string, b: string): boolean {
  return URL.canParse(a) && URL.canParse(b) && new URL(a).origin === new URL(b).origin;
}

async function runCommand(project: Project, contract: string, command: string): Promise<Problem | undefined> {
  const shell = process.platform === "win32" ? ["cmd", "/d", "/s", "/c"] : ["/bin/sh", "-c"];
  const [program = "", ...flags] = shell;
  try {
    const { stdout } = await promisify(execFile)(program, [...flags, command], {
      cwd: project.root,
      maxBuffer: mostOutput,
      timeout: timeoutMs * 4,
      encoding: "utf8",
    });
    if (stdout.trim() === "") return failedCommand(contract, "printed nothing");
    save(copyPath(project, contract, undefined, stdout), stdout);
    return undefined;
  } catch (error) {
    const { code, stderr } = error as { code?: number | string; stderr?: string };
    const said = (stderr ?? "").trim().split("\n").slice(-3).join(" ").slice(0, 300);
    return failedCommand(contract, `failed (${String(code ?? "stopped")})${said === "" ? "" : `: ${said}`}`);
  }
}

function failedCommand(contract: string, what: string): Problem {
  return problem("contract.fetch", `The command that prints the contract \`${contract}\` ${what}.`, {
    hint: "Run it in the project's folder to see what is wrong.",
  });
}

function expand(text: string, contract: string): string {
  return text.replace(/\$\{(\w+)\}/g, (whole, name: string) => {
    const value = process.env[name];
    if (value !== undefined && value !== "") return value;
    const message = `The contract \`${contract}\` needs the environment variable \`${name}\`, which is not set.`;
    throw new Halt(
      [problem("config.variable", message, { hint: `Set ${name}, or take ${whole} out.` })],
      exitCodes.usage,
    );
  });
}

function save(path: string, text: string): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, text.endsWith("\n") ? text : `${text}\n`);
}
