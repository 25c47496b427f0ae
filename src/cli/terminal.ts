import pc from "picocolors";
import { plainPaint, type Paint } from "../core/report/paint.js";

/** Where a command's words go. Results on standard output, problems and progress on standard error. */
export interface Terminal {
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

/** The one place that writes to the process's streams and decides about colour. */
export function openTerminal(options: GlobalOptions): Terminal {
  const wantsColour = options.color !== false && process.env["NO_COLOR"] === undefined && options.json !== true;
  const colours = pc.createColors(wantsColour && (process.env["FORCE_COLOR"] !== undefined || process.stdout.isTTY));
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
  process.stdout.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code !== "EPIPE") throw error;
    process.exit();
  });
  const json = options.json === true;
  const quiet = options.quiet === true;
  return {
    paint,
    json,
    quiet,
    result: (lines) => {
      if (!json && !quiet) process.stdout.write(`${lines.join("\n")}\n`);
    },
    note: (lines) => {
      if (!json && lines.length > 0) process.stderr.write(`${lines.join("\n")}\n`);
    },
    document: (data) => {
      if (json) process.stdout.write(`${JSON.stringify(data, null, 2)}\n`);
    },
    line: (data) => {
      if (json) process.stdout.write(`${JSON.stringify(data)}\n`);
    },
  };
}
