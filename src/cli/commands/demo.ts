import { spawn, spawnSync, type ChildProcess } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { exitCodes } from "../../workspace/project/halt.js";
import type { ExampleApp } from "../../workspace/languages/languageTools.js";
import { usualLanguage, workspaceLanguages } from "../../workspace/languages/index.js";
import { packageFolder } from "../../workspace/files/packageFolder.js";
import type { Terminal } from "../output/terminal.js";

/** A program that is run for real in the demo's folder. */
interface Run {
  readonly title: string;
  readonly shown: string;
  readonly args: readonly string[];
  readonly expected: number;
  /** Another program than Node. */
  readonly command?: string;
  /** Where it runs, instead of the demo's folder. */
  readonly cwd?: string;
  /** What it prints is shown only when it fails. */
  readonly isQuiet?: boolean;
}

/** Ends the demo when a command did not do what the flow needs. */
class DemoFailure extends Error {}

/** `rhema demo`: plays the whole flow with the real commands on made-up data, and leaves the folder to explore. */
export async function demoCommand(terminal: Terminal): Promise<number> {
  const installed = packageFolder();
  const folder = mkdtempSync(join(tmpdir(), "rhema-demo-"));
  const program = join(installed, "dist", "cli", "main.js");
  const { proof } = await terminal.host.session.tools(usualLanguage);
  const say = (lines: readonly string[]): void => {
    terminal.result(lines);
  };
  let step = 0;
  const title = (text: string): void => {
    say(["", terminal.paint.strong(`${String(++step)}. ${text}`)]);
  };
  const run = ({
    title: text,
    shown,
    args,
    expected,
    command = process.execPath,
    cwd = folder,
    isQuiet = false,
  }: Run): void => {
    title(text);
    say([terminal.paint.quiet(`$ ${shown}`)]);
    const { stdout, stderr, status } = spawnSync(command, args, {
      cwd,
      encoding: "utf8",
      env: childEnvironment(terminal),
    });
    if (!isQuiet || status !== expected)
      say([stderr, stdout].flatMap((text) => (text.trimEnd() === "" ? [] : [text.trimEnd()])));
    if (status !== expected)
      throw new DemoFailure(`\`${shown}\` ended with ${String(status)}; the demo expected ${String(expected)}.`);
  };
  const rhema = (text: string, args: readonly string[], expected = 0): void => {
    run({ title: text, shown: `rhema ${args.join(" ")}`, args: [program, ...args], expected });
  };
  const compile = (text: string): void => {
    if (proof) run({ title: text, shown: proof.command.shown, args: proof.command.args(), expected: 0 });
  };
  const copyContracts = (version: string): void => {
    cpSync(join(installed, "demo", "contracts", version), join(folder, "contracts"), { recursive: true });
  };

  try {
    say([terminal.paint.strong("rhema demo: Ostrel Harbour, a made-up small-boat harbour"), `in ${folder}`]);
    mkdirSync(join(folder, "contracts"));
    cpSync(join(installed, "demo", "app"), folder, { recursive: true });
    copyContracts("v1");
    const fresh = join(folder, "fresh-start");
    cpSync(join(folder, "contracts"), join(fresh, "contracts"), { recursive: true });
    cpSync(join(folder, "package.json"), join(fresh, "package.json"));
    const inFresh = (text: string, args: readonly string[]): void => {
      run({ title: text, shown: `rhema ${args.join(" ")}`, args: [program, ...args], expected: 0, cwd: fresh });
    };
    inFresh("Adopt: a new project finds its contracts, tries them, and has a configuration.", ["init", "--yes"]);
    inFresh("Ask: queries to begin with, for a schema that has none yet.", ["draft", "passages", "ports", "weather"]);
    rhema("The quay board is further on. Generate: one SDK from a REST contract and a GraphQL schema.", ["generate"]);
    rhema("Look something up: what does reserving a berth take?", ["outline", "--about", "reserveBerth"]);
    rhema("Try it: one call, with samples for what is left out.", [
      "try",
      "reserveBerth",
      "berthId=N-07",
      "body.crew=3",
    ]);
    compile("Build: the quay board compiles against the SDK, in strict mode.");
    await playing(title, terminal, { program, folder, run });
    rhema("Stay current: nothing changed, so nothing is done.", ["generate"]);
    await watching(title, terminal, { program, folder });
    copyContracts("v2");
    rhema("The contracts moved to their second version: check says the SDK is stale.", ["check"], exitCodes.findings);
    rhema("Meet the change: what breaks, and where in this app?", ["impact"], exitCodes.findings);
    rhema(
      "Four queries no longer fit, so the SDK is held back and the old one stays.",
      ["generate"],
      exitCodes.findings,
    );
    cpSync(join(installed, "demo", "app-v2"), folder, { recursive: true });
    rhema("The places were mended: now the SDK follows the contract.", ["generate"]);
    compile("The app compiles against the new SDK.");
    await playing(title, terminal, { program, folder, run });
    rhema("Guard: this is what CI runs.", ["check"]);
    rhema("And what a code means, with an example.", ["explain", "answer.field.renamed"]);
    for (const language of workspaceLanguages) {
      const { example } = await terminal.host.session.tools(language.id);
      if (example) await otherApp({ title, terminal, program, folder, run }, example);
    }
    say(["", `The folder is yours to explore: cd ${folder}`]);
    return exitCodes.done;
  } catch (error) {
    if (!(error instanceof DemoFailure)) throw error;
    terminal.note(["", terminal.paint.bad(`demo: ${error.message}`)]);
    return exitCodes.findings;
  }
}

function childEnvironment(terminal: Terminal): NodeJS.ProcessEnv {
  const coloured = terminal.paint.bad("x") !== "x";
  const { NO_COLOR: _off, FORCE_COLOR: _on, ...rest } = terminal.host.environment;
  return coloured ? { ...rest, FORCE_COLOR: "1" } : { ...rest, NO_COLOR: "1" };
}

const startLimitMs = 20_000;

/** Starts the stand-in, runs the board against it, and ends the stand-in. */
async function playing(
  title: (text: string) => void,
  terminal: Terminal,
  { program, folder, run }: { readonly program: string; readonly folder: string; readonly run: (run: Run) => void },
): Promise<void> {
  title("Play: a stand-in server plays both contracts; observe stands before it and judges what goes through.");
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
    run({
      title: "Run: the quay board talks to the stand-in.",
      shown: `node built/board.js ${address}`,
      args: ["built/board.js", address],
      expected: 0,
    });
    const ended = new Promise((resolve) => observer?.once("close", resolve));
    observer.kill("SIGINT");
    await ended;
    title("What the observer saw.");
    terminal.result(report.trimEnd().split("\n").slice(2));
  } finally {
    server.kill();
    observer?.kill();
  }
}

/** What the parts of the demo share. */
interface Stage {
  readonly title: (text: string) => void;
  readonly terminal: Terminal;
  readonly program: string;
  readonly folder: string;
  readonly run: (run: Run) => void;
}

/** An app in a language with a toolchain of its own: built and run where that is found, and told what breaks in any case. */
async function otherApp({ title, terminal, program, folder, run }: Stage, example: ExampleApp): Promise<void> {
  const demo = join(packageFolder(), "demo");
  const cwd = join(folder, example.folder);
  const copyContracts = (version: string): void => {
    cpSync(join(demo, "contracts", version), join(cwd, "contracts"), { recursive: true });
  };
  const rhema = (text: string, command: string, expected = 0): void => {
    run({ title: text, shown: `rhema ${command}`, args: [program, command], expected, cwd });
  };
  cpSync(join(demo, example.folder), cwd, { recursive: true });
  copyContracts("v1");
  rhema(`${example.title}: generate.`, "generate");
  const server = spawn(process.execPath, [program, "--quiet", "--json", "play", "--port", "0"], {
    cwd,
    stdio: ["ignore", "pipe", "ignore"],
  });
  try {
    const steps = example.steps(cwd, await firstMatch(server, /"url": "(http:\/\/[^"/]+)/));
    if (typeof steps === "string") {
      title("Build and run it: left out.");
      terminal.result([terminal.paint.warn(`Left out, because ${steps}.`)]);
    } else for (const step of steps) run({ ...step, expected: 0, cwd });
  } finally {
    server.kill();
  }
  copyContracts("v2");
  rhema("The second version of the contracts, and what it breaks in this app.", "impact", exitCodes.findings);
}

/** Waits until a program has said something, and gives the part of it that is asked for. */
function firstMatch(program: ChildProcess, wanted: RegExp): Promise<string> {
  return new Promise((resolve, reject) => {
    let text = "";
    const timer = setTimeout(() => {
      reject(new DemoFailure("A program that runs on did not start."));
    }, startLimitMs);
    program.stdout?.setEncoding("utf8").on("data", (part: string) => {
      text += part;
      const found = wanted.exec(text)?.[1];
      if (found === undefined) return;
      clearTimeout(timer);
      resolve(found);
    });
    program.on("exit", (code) => {
      reject(new DemoFailure(`A program that runs on ended with ${String(code)}.`));
    });
  });
}

/** Starts the watcher, saves a change of a contract, shows what is said of it, and takes the change back. */
async function watching(
  title: (text: string) => void,
  terminal: Terminal,
  { program, folder }: { readonly program: string; readonly folder: string },
): Promise<void> {
  title("Watch: a contract is saved with a field called otherwise, and then saved as it was.");
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
