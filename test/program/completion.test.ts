import { spawnSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { programPath } from "../support/packageRoot.js";
import { demoProject, TemporaryProject } from "../support/temporaryProject.js";

/** The words that may continue a line: the last word is completed. */
async function wordsFor(project: TemporaryProject, line: string): Promise<string[]> {
  const words = line.split(" ");
  const ran = await project.run(["completion", "--at", String(words.length - 1), "--", ...words]);
  expect([ran.code, ran.err]).toEqual([0, ""]);
  return ran.out.split("\n").slice(0, -1);
}

describe("completion", () => {
  it("completes commands, options and their values", async () => {
    const project = new TemporaryProject();
    expect(await wordsFor(project, "rhema ")).toEqual(expect.arrayContaining(["generate", "help", "watch"]));
    expect(await wordsFor(project, "rhema wa")).toEqual(["watch"]);
    expect(await wordsFor(project, "rhema --json --config other.yaml wa")).toEqual(["watch"]);
    expect(await wordsFor(project, "rhema help ex")).toEqual(["explain"]);
    expect(await wordsFor(project, "rhema completion ")).toEqual(["bash", "fish", "zsh"]);
    expect(await wordsFor(project, "rhema watch --p")).toEqual(["--partial", "--play", "--port"]);
    expect(await wordsFor(project, "rhema impact --gate ")).toEqual(["breaking", "off", "risky"]);
    expect(await wordsFor(project, "rhema impact --report ju")).toEqual(["junit"]);
    expect(await wordsFor(project, "rhema init --language k")).toEqual(["kotlin"]);
    expect(await wordsFor(project, "rhema explain gate.")).toEqual(["gate.held"]);
    // A file, a folder, a number: the shell completes these itself.
    expect(await wordsFor(project, "rhema generate --config r")).toEqual([]);
    expect(await wordsFor(project, "rhema watch -- npm r")).toEqual([]);
    expect(await wordsFor(project, "rhema nonsense x")).toEqual([]);
  });

  it("completes the contracts, SDKs and calls of the project", async () => {
    const project = demoProject();
    expect(await wordsFor(project, "rhema generate ")).toEqual(["quay-board"]);
    expect(await wordsFor(project, "rhema impact berths p")).toEqual(["passages"]);
    expect(await wordsFor(project, "rhema observe --contract b")).toEqual(["berths"]);
    expect(await wordsFor(project, "rhema try re")).toEqual([]);
    expect((await project.run(["generate"])).code).toBe(0);
    expect(await wordsFor(project, "rhema try re")).toEqual([
      "registerVessel",
      "removeBerth",
      "reportArrival",
      "reserveBerth",
    ]);
    expect(await wordsFor(project, "rhema outline --about tide")).toEqual(["tideTable"]);
    project.write("rhema.yaml", "contracts: [");
    expect(await wordsFor(project, "rhema impact ")).toEqual([]);
  });

  it("offers no word that a shell could run", async () => {
    const project = new TemporaryProject({
      "rhema.yaml":
        "contracts: { berths: { from: a.yaml }, '$(touch x)': { from: b.yaml }, \"b;ls\": { from: c.yaml } }\nsdks: {}\n",
    });
    expect(await wordsFor(project, "rhema impact ")).toEqual(["berths"]);
  });

  it("refuses an unknown shell", async () => {
    const { code, err } = await new TemporaryProject().run(["completion", "tcsh"]);
    expect([code, err]).toEqual([2, expect.stringContaining("One of: bash, zsh, fish.")]);
  });
});

/** How each shell is asked for the completions of a line, after its script. */
const asking: Readonly<Record<string, (script: string) => readonly string[]>> = {
  bash: (script) => [
    "-c",
    `${script}\nCOMP_WORDS=(rhema impact --gate ""); COMP_CWORD=3; _rhema_words; printf '%s\\n' "\${COMPREPLY[@]}"`,
  ],
  fish: (script) => ["-c", `${script}\ncomplete -C 'rhema impact --gate '`],
  zsh: (script) => [
    "-fc",
    `autoload -U compinit; compinit -u -d /dev/null; compadd() { printf '%s\\n' "\${(@P)2}" }\n${script}\nwords=(rhema impact --gate ""); CURRENT=4; _rhema_words`,
  ],
};

it.each(Object.keys(asking))("the script for %s runs the program", async (shell) => {
  const project = new TemporaryProject({
    "bin/rhema": `#!/bin/sh\nexec "${process.execPath}" "${programPath}" "$@"\n`,
  });
  const { out } = await project.run(["completion", shell]);
  spawnSync("chmod", ["+x", project.path("bin/rhema")]);
  const { status, stdout, stderr, error } = spawnSync(shell, asking[shell]?.(out) ?? [], {
    cwd: project.folder,
    encoding: "utf8",
    env: { PATH: `${project.path("bin")}:${process.env["PATH"] ?? ""}`, HOME: project.folder },
  });
  // Only bash is everywhere. A shell that is not installed cannot be asked.
  if (error && shell !== "bash") return;
  expect([status, stderr]).toEqual([0, ""]);
  expect(
    stdout
      .split("\n")
      .map((line) => line.split("\t")[0])
      .filter((line) => line !== ""),
  ).toEqual(["breaking", "off", "risky"]);
});
