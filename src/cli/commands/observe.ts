import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { problem } from "../../core/problem/problem.js";
import { visible } from "../../core/text/visible.js";
import { counted } from "../../core/report/paint.js";
import type { Judgement, SeenExchange } from "../../standin/observe/exchange.js";
import { harExchanges } from "../../standin/observe/harExchanges.js";
import { Observations } from "../../standin/observe/observations.js";
import { observingProxy } from "../../standin/observe/proxy.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { openProject } from "../../workspace/project/openProject.js";
import { listen } from "../network/listen.js";
import type { ObserveForm } from "../output/observeForms.js";
import { observedSocket } from "../network/observedSocket.js";
import { observedJunit, observedLines, observedMarkdown } from "../output/observeReport.js";
import { readPlayed } from "../readPlayed.js";
import { wholeNumber } from "../wholeNumber.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface ObserveCommandOptions {
  /** The address of the backend; undefined if only recordings are checked. */
  readonly url: string | undefined;
  readonly contract: readonly string[];
  readonly har: readonly string[];
  readonly port: string;
  readonly host: string;
  readonly for: string | undefined;
  readonly report: ObserveForm;
}

const longestSeconds = 24 * 3600;

/**
 * `rhema observe [url]`: reports where real traffic does not match the contract.
 *
 * @returns the exit code
 * @throws Halt if an option or a recording is not valid
 */
export async function observeCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: ObserveCommandOptions,
): Promise<number> {
  const project = await openProject(terminal.host, globals.config);
  const target = options.url === undefined ? undefined : readTarget(options.url);
  if (!target && options.har.length === 0)
    throw new Halt(
      [
        problem("observe.nothing", "There is nothing to observe.", {
          hint: "Name the backend's URL, or recordings with --har FILE.",
        }),
      ],
      exitCodes.usage,
    );
  const contracts = await readPlayed(project, options.contract, terminal);
  const observations = new Observations(contracts, target?.pathname.replace(/\/+$/, ""));
  for (const file of options.har) addRecorded(file, terminal.host.folder, { observations, target });
  if (target && options.har.length === 0) await watch(target, observations, { options, terminal });
  const observed = observations.observed();
  const exitCode = observed.disagreeing > 0 ? exitCodes.findings : exitCodes.done;
  const texts = {
    text: () => observedLines(observed, terminal.paint),
    markdown: () => [observedMarkdown(observed)],
    junit: () => [observedJunit(observed)],
  };
  terminal.result(texts[options.report]());
  terminal.line({ ...observed, exitCode });
  return exitCode;
}

function readTarget(text: string): URL {
  if (URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)) return new URL(text);
  const message = `\`${text}\` is not a valid backend URL.`;
  throw new Halt([problem("observe.address", message, { hint: "Use http://host:port." })], exitCodes.usage);
}

function addRecorded(
  file: string,
  folder: string,
  { observations, target }: { readonly observations: Observations; readonly target: URL | undefined },
): void {
  let text: string;
  try {
    text = readFileSync(resolve(folder, file), "utf8");
  } catch {
    throw new Halt(
      [problem("observe.recording", `\`${file}\` cannot be read.`, { hint: "Check the path." })],
      exitCodes.unreadable,
    );
  }
  const exchanges = harExchanges(text);
  if (!exchanges) {
    const hint = "Save the traffic as HAR, with contents, from the browser's network panel.";
    throw new Halt(
      [problem("observe.recording", `\`${file}\` is not recorded traffic (HAR).`, { hint })],
      exitCodes.unreadable,
    );
  }
  for (const exchange of exchanges) if (!target || exchange.url.origin === target.origin) observations.add(exchange);
}

async function watch(
  target: URL,
  observations: Observations,
  { options, terminal }: { readonly options: ObserveCommandOptions; readonly terminal: Terminal },
): Promise<void> {
  const port = wholeNumber("--port", options.port, 65_535);
  const seconds = options.for === undefined ? undefined : wholeNumber("--for", options.for, longestSeconds);
  const { paint, quiet } = terminal;
  const onExchange = (exchange: SeenExchange, elapsedMs?: number): void => {
    const judged = observations.add(exchange);
    const { method, url, status } = exchange;
    const path = observations.pathOf(url);
    const elapsed = elapsedMs === undefined ? {} : { elapsedMs: Math.round(elapsedMs) };
    const { operation, disagreements = [] } = judged ?? {};
    terminal.line({ method, path, status, ...elapsed, operation, disagreements });
    if (!quiet) terminal.note(callLines(`${method} ${path}`, status, judged));
  };
  const proxy = observingProxy({ target, onExchange });
  const address = await listen(proxy, options.host, { port, onUpgrade: observedSocket(target, onExchange) });
  terminal.result([
    paint.good(`observe: at http://${options.host}:${String(address.port)}, Ctrl-C stops it and prints the report`),
    paint.quiet(`  connect the app to this address; requests go on to ${target.origin}${target.pathname}`),
  ]);
  terminal.line({
    observing: `http://${options.host}:${String(address.port)}`,
    target: `${target.origin}${target.pathname}`,
  });
  await (seconds === undefined
    ? terminal.host.interrupted()
    : Promise.race([terminal.host.interrupted(), new Promise((done) => setTimeout(done, seconds * 1000))]));
  await address.close();

  function callLines(shown: string, status: number, judged: Judgement | undefined): string[] {
    const disagreements = judged?.disagreements ?? [];
    const [first, ...more] = disagreements;
    if (first === undefined) return [`  ${paint.good(String(status))} ${visible(shown)}`];
    const rest = more.length === 0 ? "" : ` and ${counted(more.length, "more mismatch", "more mismatches")}`;
    return [
      `  ${paint.bad(String(status))} ${visible(shown)}`,
      `      ${paint.bad("x")} ${visible(first)}${paint.quiet(rest)}`,
    ];
  }
}
