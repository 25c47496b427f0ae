import { spawn, spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { exitCodes } from "../../workspace/halt.js";
import { packageFolder } from "../../workspace/packageFolder.js";
import type { Terminal } from "../terminal.js";

/** A program that is run for real in the demo's folder. */
interface Run {
  readonly title: string;
  readonly shown: string;
  readonly args: readonly string[];
  readonly expected: number;
}

/** Ends the demo when a command did not do what the flow needs. */
class DemoFailure extends Error {}

/** `rhema demo`: plays the whole flow with the real commands on made-up data, and leaves the folder to explore. */
export async function demoCommand(terminal: Terminal): Promise<number> {
  const installed = packageFolder();
  const folder = mkdtempSync(join(tmpdir(), "rhema-demo-"));
  const program = join(installed, "dist", "cli", "main.js");
  const compiler = createRequire(program).resolve("typescript/lib/tsc.js");
  const say = (lines: readonly string[]): void => {
    terminal.result(lines);
  };
  let step = 0;
  const title = (text: string): void => {
    say(["", terminal.paint.strong(`${String(++step)}. ${text}`)]);
  };
  const run = ({ title: text, shown, args, expected }: Run): void => {
    title(text);
    say([terminal.paint.quiet(`$ ${shown}`)]);
    const { stdout, stderr, status } = spawnSync(process.execPath, args, {
      cwd: folder,
      encoding: "utf8",
      env: childEnvironment(terminal),
    });
    say([stderr, stdout].flatMap((text) => (text.trimEnd() === "" ? [] : [text.trimEnd()])));
    if (status !== expected)
      throw new DemoFailure(`\`${shown}\` ended with ${String(status)}; the demo expected ${String(expected)}.`);
  };
  const rhema = (text: string, args: readonly string[], expected = 0): void => {
    run({ title: text, shown: `rhema ${args.join(" ")}`, args: [program, ...args], expected });
  };
  const compile = (text: string): void => {
    run({ title: text, shown: "tsc -p .", args: [compiler, "-p", "."], expected: 0 });
  };
  const copyContracts = (version: string): void => {
    cpSync(join(installed, "demo", "contracts", version), join(folder, "contracts"), { recursive: true });
  };

  try {
    say([terminal.paint.strong("rhema demo: Ostrel Harbour, a made-up small-boat harbour"), `in ${folder}`]);
    mkdirSync(join(folder, "contracts"));
    cpSync(join(installed, "demo", "app"), folder, { recursive: true });
    copyContracts("v1");
    rhema("Generate: one SDK from a REST contract and a GraphQL schema with queries.", ["generate"]);
    compile("Build: the quay board compiles against the SDK, in strict mode.");
    await playing(title, terminal, program, folder, run);
    rhema("Stay current: nothing changed, so nothing is done.", ["generate"]);
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
    await playing(title, terminal, program, folder, run);
    rhema("Guard: this is what CI runs.", ["check"]);
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
  const { NO_COLOR: _off, FORCE_COLOR: _on, ...rest } = process.env;
  return coloured ? { ...rest, FORCE_COLOR: "1" } : { ...rest, NO_COLOR: "1" };
}

const startLimitMs = 20_000;

/** Starts the stand-in, runs the board against it, and ends the stand-in. */
async function playing(
  title: (text: string) => void,
  terminal: Terminal,
  program: string,
  folder: string,
  run: (run: Run) => void,
): Promise<void> {
  title("Play: a stand-in server plays both contracts.");
  terminal.result([terminal.paint.quiet("$ rhema play --port 0 &")]);
  const server = spawn(process.execPath, [program, "--quiet", "--json", "play", "--port", "0"], {
    cwd: folder,
    stdio: ["ignore", "pipe", "inherit"],
  });
  try {
    const address = await new Promise<string>((resolve, reject) => {
      let text = "";
      const timer = setTimeout(() => {
        reject(new DemoFailure("The stand-in did not start."));
      }, startLimitMs);
      server.stdout.setEncoding("utf8").on("data", (part: string) => {
        text += part;
        const found = /"url": "(http:\/\/[^"/]+)/.exec(text)?.[1];
        if (found === undefined) return;
        clearTimeout(timer);
        resolve(found);
      });
      server.on("exit", (code) => {
        reject(new DemoFailure(`The stand-in ended with ${String(code)}.`));
      });
    });
    terminal.result([`playing at ${address}`]);
    run({
      title: "Run: the quay board talks to the stand-in.",
      shown: `node built/board.js ${address}`,
      args: ["built/board.js", address],
      expected: 0,
    });
  } finally {
    server.kill();
  }
}
