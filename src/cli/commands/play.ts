import { serve } from "@hono/node-server";
import { problem } from "../../core/problem/problem.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { counted } from "../../core/report/paint.js";
import { createStandin, type PlayedContract } from "../../standin/standin.js";
import { ContractReader } from "../../workspace/buildSdk.js";
import { exitCodes, Halt } from "../../workspace/halt.js";
import { chosenContracts } from "../../workspace/chosenContracts.js";
import { openProject } from "../../workspace/project.js";
import { ProjectTexts } from "../../workspace/sdkInputs.js";
import { errorCode } from "../../workspace/textFile.js";
import type { GlobalOptions, Terminal } from "../terminal.js";

export interface PlayOptions {
  readonly contracts: readonly string[];
  readonly port: string;
  readonly host: string;
  readonly seed: string;
}

const eventEveryMs = 1000;

/** `rhema play [contract…]`: run the stand-in until it is interrupted. */
export async function playCommand(terminal: Terminal, globals: GlobalOptions, options: PlayOptions): Promise<number> {
  const port = wholeNumber("--port", options.port, 65_535);
  const seed = wholeNumber("--seed", options.seed, 2 ** 31);
  const project = await openProject(process.cwd(), globals.config);
  const texts = new ProjectTexts(project);
  const reader = new ContractReader(texts);
  const names = chosenContracts(project, options.contracts);
  await texts.readHosts(names);
  const played = names.map((name): PlayedContract => {
    const { contract, schema, raw, problems } = reader.read(name);
    terminal.note(problems.flatMap((each) => renderProblem(each, (document) => texts.find(document), terminal.paint)));
    return { contract, schema, raw };
  });
  const { paint } = terminal;
  const onCall = ({ method, path, status }: { method: string; path: string; status: number }): void => {
    const shown = status < 400 ? paint.good(String(status)) : paint.warn(String(status));
    if (!terminal.quiet) terminal.note([`  ${shown} ${method} ${path}`]);
  };
  const app = createStandin(played, { seed, eventEveryMs, onCall });
  const address = await listen(app.fetch, options.host, port);
  const base = `http://${options.host.includes(":") ? `[${options.host}]` : options.host}:${String(address.port)}`;
  terminal.result([
    paint.good(`play: ${counted(played.length, "contract")} at ${base}, Ctrl-C ends it`),
    ...played.map(
      ({ contract }) =>
        `  ${paint.accent(contract.name)}  ${base}/${contract.name}  ${paint.quiet(contract.protocol === "rest" ? counted(contract.operations.length, "operation") : "GraphQL by POST")}`,
    ),
  ]);
  terminal.document({
    playing: played.map(({ contract }) => ({
      contract: contract.name,
      protocol: contract.protocol,
      url: `${base}/${contract.name}`,
    })),
  });
  await interrupted();
  await address.close();
  return exitCodes.done;
}

function wholeNumber(flag: string, text: string, most: number): number {
  const number = Number(text);
  if (/^\d+$/.test(text) && number <= most) return number;
  throw new Halt(
    [problem("play.port", `${flag} takes a whole number up to ${String(most)}, and got \`${text}\`.`)],
    exitCodes.usage,
  );
}

function listen(
  fetch: (request: Request) => Response | Promise<Response>,
  host: string,
  port: number,
): Promise<{ port: number; close: () => Promise<void> }> {
  return new Promise((resolve, reject) => {
    const server = serve({ fetch, hostname: host, port }, (info) => {
      const close = (): Promise<void> =>
        new Promise((done) => {
          server.close(() => {
            done();
          });
          if ("closeAllConnections" in server) server.closeAllConnections();
        });
      resolve({ port: info.port, close });
    });
    server.on("error", (error: Error) => {
      const code = errorCode(error);
      const why = code === "EADDRINUSE" ? "another program listens there" : (code ?? error.message);
      reject(
        new Halt(
          [
            problem("play.port", `The stand-in cannot listen on ${host}:${String(port)}: ${why}.`, {
              hint: "Choose another port with --port; 0 takes any free one.",
            }),
          ],
          exitCodes.usage,
        ),
      );
    });
  });
}

function interrupted(): Promise<void> {
  return new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM"] as const)
      process.once(signal, () => {
        resolve();
      });
  });
}
