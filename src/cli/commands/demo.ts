import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { exitCodes } from "../../workspace/project/halt.js";
import type { ExampleApp } from "../../workspace/languages/languageTools.js";
import { usualLanguage, workspaceLanguages } from "../../workspace/languages/index.js";
import { packageFolder } from "../../workspace/files/packageFolder.js";
import type { Terminal } from "../output/terminal.js";

/** A program that runs in the demo's folder. */
interface Run {
  readonly title: string;
  readonly shown: string;
  readonly args: readonly string[];
  readonly expected: number;
  /** The program. Default: Node. */
  readonly command?: string;
  /** The folder in which it runs. Default: the demo's folder. */
  readonly cwd?: string;
  /** Whether its output is shown only if it fails. */
  readonly isQuiet?: boolean;
}

/** Ends the demo if a command did not have the expected result. */
class DemoFailure extends Error {}

/**
 * `rhema demo`: runs the whole workflow with the real commands on made-up data, and leaves the folder to explore.
 *
 * @returns the exit code
 */
export async function demoCommand(terminal: Terminal): Promise<number> {
  const stage = new Stage(terminal, mkdtempSync(join(tmpdir(), "rhema-demo-")));
  try {
    stage.say([
      terminal.paint.strong("rhema demo: Ostrel Harbour, a made-up harbour for small boats"),
      `in ${stage.folder}`,
    ]);
    adopt(stage);
    await build(stage);
    await meetChange(stage);
    for (const language of workspaceLanguages) {
      const { example } = await terminal.host.session.tools(language.id);
      if (example) await otherApp(stage, example);
    }
    stage.say(["", `The folder is yours to explore: cd ${stage.folder}`]);
    return exitCodes.done;
  } catch (error) {
    if (!(error instanceof DemoFailure)) throw error;
    terminal.note(["", terminal.paint.bad(`demo: ${error.message}`)]);
    return exitCodes.findings;
  }
}

/** The demo's folder, and functions that run commands in it and show their output. */
class Stage {
  readonly program = join(packageFolder(), "dist", "cli", "main.js");
  private step = 0;

  constructor(
    readonly terminal: Terminal,
    readonly folder: string,
  ) {}

  say(lines: readonly string[]): void {
    this.terminal.result(lines);
  }

  title(text: string): void {
    this.say(["", this.terminal.paint.strong(`${String(++this.step)}. ${text}`)]);
  }

  /** Runs a program and shows its output. @throws DemoFailure if it ends with an unexpected exit code */
  run({ title, shown, args, expected, command = process.execPath, cwd = this.folder, isQuiet = false }: Run): void {
    this.title(title);
    this.say([this.terminal.paint.quiet(`$ ${shown}`)]);
    const env = childEnvironment(this.terminal);
    const { stdout, stderr, status } = spawnSync(command, args, { cwd, encoding: "utf8", env });
    if (!isQuiet || status !== expected)
      this.say([stderr, stdout].flatMap((text) => (text.trimEnd() === "" ? [] : [text.trimEnd()])));
    if (status !== expected)
      throw new DemoFailure(`\`${shown}\` ended with ${String(status)}. The demo expected ${String(expected)}.`);
  }

  /** Runs a command of Rhema. */
  rhema(title: string, args: readonly string[], how: { readonly expected?: number; readonly cwd?: string } = {}): void {
    const shown = `rhema ${args.join(" ")}`;
    this.run({ title, shown, args: [this.program, ...args], expected: 0, ...how });
  }

  /** Compiles the board, if there is a compiler. */
  async compile(title: string): Promise<void> {
    const { proof } = await this.terminal.host.session.tools(usualLanguage);
    if (proof) this.run({ title, shown: proof.command.shown, args: proof.command.args(), expected: 0 });
  }

  /** Replaces the contracts with those of a version. */
  contracts(version: string, folder = this.folder): void {
    cpSync(join(packageFolder(), "demo", "contracts", version), join(folder, "contracts"), { recursive: true });
  }
}

/** A new project, and then the board's own, which is more advanced. */
function adopt(stage: Stage): void {
  const { folder } = stage;
  mkdirSync(join(folder, "contracts"));
  cpSync(join(packageFolder(), "demo", "app"), folder, { recursive: true });
  stage.contracts("v1");
  const cwd = join(folder, "fresh-start");
  cpSync(join(folder, "contracts"), join(cwd, "contracts"), { recursive: true });
  cpSync(join(folder, "package.json"), join(cwd, "package.json"));
  const found = "Set up: find the contracts of a new project, test them and write the configuration.";
  stage.rhema(found, ["init", "--yes"], { cwd });
  const asked = "Draft: write the first queries for a schema.";
  stage.rhema(asked, ["draft", "passages", "ports", "weather"], { cwd });
}

async function build(stage: Stage): Promise<void> {
  stage.rhema("Generate: one SDK for the quay board, from a REST contract and a GraphQL schema.", ["generate"]);
  stage.rhema("Explore: what does a reservation need?", ["outline", "--about", "reserveBerth"]);
  const given = ["berthId=N-07", "body.crew=3"];
  stage.rhema("Try: one call, with sample values for the rest.", ["try", "reserveBerth", ...given]);
  await stage.compile("Build: compile the quay board with the SDK, in strict mode.");
  await playing(stage);
  stage.rhema("Generate again: nothing changed, so nothing is written.", ["generate"]);
  await watching(stage);
}

async function meetChange(stage: Stage): Promise<void> {
  const expected = exitCodes.findings;
  stage.contracts("v2");
  stage.rhema("Check: the contracts have a second version, so the SDK is out of date.", ["check"], { expected });
  stage.rhema("Impact: what breaks, and where in this app?", ["impact"], { expected });
  const held = "Generate: four queries are now invalid, so the old SDK stays.";
  stage.rhema(held, ["generate"], { expected });
  cpSync(join(packageFolder(), "demo", "app-v2"), stage.folder, { recursive: true });
  stage.rhema("Generate: the app was fixed, so the new SDK is written.", ["generate"]);
  await stage.compile("Build: compile the app with the new SDK.");
  await playing(stage);
  stage.rhema("Check: this is what CI runs.", ["check"]);
  stage.rhema("Explain: what a code means, with an example.", ["explain", "answer.field.renamed"]);
}

function childEnvironment(terminal: Terminal): NodeJS.ProcessEnv {
  const coloured = terminal.paint.bad("x") !== "x";
  const { NO_COLOR: _off, FORCE_COLOR: _on, ...rest } = terminal.host.environment;
  return coloured ? { ...rest, FORCE_COLOR: "1" } : { ...rest, NO_COLOR: "1" };
}

const startLimitMs = 20_000;

/** Starts the stand-in server, runs the board with it, and stops the server. */
async function playing(stage: Stage): Promise<void> {
  const { terminal, program, folder } = stage;
  stage.title("Play and observe: a stand-in server for both contracts, and a check of its traffic.");
  terminal.result([terminal.paint.quiet("$ rhema play --port 0 &")]);
  const start = (args: readonly string[]) =>
    spawn(process.execPath, [program, ...args], { cwd: folder, stdio: ["ignore", "pipe", "ignore"] });
  const server = start(["--quiet", "--json", "play", "--port", "0"]);
  let observer: ReturnType<typeof start> | undefined;
  try {
    const played = await firstMatch(server, /"url": "(http:\/\/[^"/]+)/);
    terminal.result([`playing at ${played}`, terminal.paint.quiet(`$ rhema observe ${played} --port 0 &`)]);
    observer = start(["observe", played, "--port", "0"]);
    let report = "";
    observer.stdout.on("data", (part: string) => (report += part));
    const address = await firstMatch(observer, /at (http:\/\/127\.0\.0\.1:\d+),/);
    terminal.result([`observing at ${address}`]);
    stage.run({
      title: "Run: the quay board uses the stand-in server.",
      shown: `node built/board.js ${address}`,
      args: ["built/board.js", address],
      expected: 0,
    });
    const ended = new Promise((resolve) => observer?.once("close", resolve));
    observer.kill("SIGINT");
    await ended;
    stage.title("Observe: the report.");
    terminal.result(report.trimEnd().split("\n").slice(2));
  } finally {
    server.kill();
    observer?.kill();
  }
}

/**
 * An app in a language with a toolchain of its own. It is built and run if the toolchain is found. What breaks is
 * reported in any case.
 */
async function otherApp(stage: Stage, example: ExampleApp): Promise<void> {
  const { terminal, program } = stage;
  const cwd = join(stage.folder, example.folder);
  cpSync(join(packageFolder(), "demo", example.folder), cwd, { recursive: true });
  stage.contracts("v1", cwd);
  stage.rhema(`${example.title}: generate.`, ["generate"], { cwd });
  const server = spawn(process.execPath, [program, "--quiet", "--json", "play", "--port", "0"], {
    cwd,
    stdio: ["ignore", "pipe", "ignore"],
  });
  try {
    const steps = example.steps(cwd, await firstMatch(server, /"url": "(http:\/\/[^"/]+)/));
    if (typeof steps === "string") {
      stage.title("Build and run: skipped.");
      terminal.result([terminal.paint.warn(`Skipped, because ${steps}.`)]);
    } else for (const step of steps) stage.run({ ...step, expected: 0, cwd });
  } finally {
    server.kill();
  }
  stage.contracts("v2", cwd);
  const expected = exitCodes.findings;
  stage.rhema("Impact: what the second version of the contracts breaks in this app.", ["impact"], { expected, cwd });
}

/** Waits for output of a program, and returns the wanted part of it. */
function firstMatch(program: ChildProcess, wanted: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = "";
    const timer = setTimeout(() => {
      reject(new DemoFailure("A background program did not start."));
    }, startLimitMs);
    program.stdout?.setEncoding("utf8").on("data", (part: string) => {
      text += part;
      const found = wanted.exec(text)?.[1];
      if (found === undefined) return;
      clearTimeout(timer);
      resolve(found);
    });
    program.on("exit", (code) => {
      reject(new DemoFailure(`A background program ended with ${String(code)}.`));
    });
  });
}

/** Starts the watcher, saves a change of a contract, shows the report, and undoes the change. */
async function watching(stage: Stage): Promise<void> {
  const { terminal, program, folder } = stage;
  stage.title("Watch: rename a field in a contract, save it, and undo that.");
  terminal.result([terminal.paint.quiet("$ rhema watch &")]);
  const watcher = spawn(process.execPath, [program, "watch"], {
    cwd: folder,
    stdio: ["ignore", "pipe", "ignore"],
    env: childEnvironment(terminal),
  });
  try {
    let said = "";
    watcher.stdout.on("data", (part: string) => (said += part));
    await firstMatch(watcher, /(waiting for a save)/);
    const contract = join(folder, "contracts", "berths.yaml");
    const text = readFileSync(contract, "utf8");
    for (const [saved, wanted] of [
      [text.replace("        note: { type: string,", "        notes: { type: string,"), /(saved, [^]*\n {2}[^\n]*)/],
      [text, /saved, [^]*(saved, [^]*\n {2}[^\n]*)/],
    ] as const) {
      writeFileSync(contract, saved);
      for (let tries = 0; !wanted.test(said) && tries < mostTries; tries++) await pause(triesEveryMs);
    }
    terminal.result(said.trimEnd().split("\n").slice(1));
  } finally {
    watcher.kill();
  }
}

const triesEveryMs = 50;
const mostTries = 400;

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
