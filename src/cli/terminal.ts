import pc from "picocolors";
import { plainPaint, type Paint } from "../core/report/paint.js";
import { exitCodes } from "../workspace/halt.js";
import type { Whereabouts } from "../workspace/whereabouts.js";
import type { Host } from "./host.js";
import { traceSteps } from "./traceSteps.js";

/** Where a command's words go. Results on standard output, problems and progress on standard error. */
export interface Terminal {
  /** What runs the command. */
  readonly host: Host & Whereabouts;
  readonly paint: Paint;
  readonly json: boolean;
  readonly quiet: boolean;
  readonly result: (lines: readonly string[]) => void;
  readonly note: (lines: readonly string[]) => void;
  /** The one JSON document of a command. */
  readonly document: (data: unknown) => void;
  /** One JSON line of a command that runs on. */
  readonly line: (data: unknown) => void;
}

export interface GlobalOptions {
  readonly config?: string;
  readonly json?: boolean;
  readonly quiet?: boolean;
  readonly color?: boolean;
}

/** The one place that writes to the streams and decides about colour. */
export function openTerminal(host: Host, options: GlobalOptions): Terminal {
  const { environment, output, errors } = host;
  const wantsColour = options.color !== false && environment["NO_COLOR"] === undefined && options.json !== true;
  const colours = pc.createColors(wantsColour && (environment["FORCE_COLOR"] !== undefined || output.isTTY === true));
  const paint: Paint = wantsColour
    ? {
        strong: colours.bold,
        quiet: colours.dim,
        good: colours.green,
        bad: (text) => colours.bold(colours.red(text)),
        warn: colours.yellow,
        accent: colours.cyan,
      }
    : plainPaint;
  // Whoever reads may have seen enough, as `head` has after some lines; then there is nobody to say anything to.
  output.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code !== "EPIPE") throw error;
    host.exit(exitCodes.done);
  });
  const json = options.json === true;
  const quiet = options.quiet === true;
  return {
    host: { ...host, trace: traceSteps(environment, (line) => errors.write(line)) },
    paint,
    json,
    quiet,
    result: (lines) => {
      if (!json && !quiet) output.write(`${lines.join("\n")}\n`);
    },
    note: (lines) => {
      if (!json && lines.length > 0) errors.write(`${lines.join("\n")}\n`);
    },
    document: (data) => {
      if (json) output.write(`${JSON.stringify(data, null, 2)}\n`);
    },
    line: (data) => {
      if (json) output.write(`${JSON.stringify(data)}\n`);
    },
  };
}
