import type { Problem } from "../../core/problem/problem.js";
import pc from "picocolors";
import { plainPaint, type Paint } from "../../core/report/paint.js";
import { Secrets } from "../../core/text/secrets.js";
import { visibleJson } from "../../core/text/visible.js";
import { ColourMarks } from "./colourMarks.js";
import { exitCodes } from "../../workspace/project/halt.js";
import { workspaceLanguages } from "../../workspace/languages/index.js";
import { Session } from "../../workspace/project/session.js";
import type { Whereabouts } from "../../workspace/project/whereabouts.js";
import type { Host } from "../process/host.js";
import { traceSteps } from "./traceSteps.js";

/** The output of a command: results on standard output, problems and progress on standard error. */
export interface Terminal {
  /** The process that runs the command. */
  readonly host: Host & Whereabouts;
  readonly paint: Paint;
  readonly json: boolean;
  readonly quiet: boolean;
  readonly result: (lines: readonly string[]) => void;
  readonly note: (lines: readonly string[]) => void;
  /** Returns whether a problem is reported: with --quiet, notes are not. */
  readonly isTold: (problem: Pick<Problem, "level">) => boolean;
  /** Reports an internal error, whatever the options. */
  readonly defect: (lines: readonly string[]) => void;
  /** Prints the JSON document of a command. */
  readonly document: (data: unknown) => void;
  /** Prints one JSON line of a command that continues to run. */
  readonly line: (data: unknown) => void;
  /** Prints data for another program as JSON, whatever the options. */
  readonly data: (data: unknown) => void;
}

export interface GlobalOptions {
  readonly config?: string;
  readonly json?: boolean;
  readonly quiet?: boolean;
  readonly color?: boolean;
}

/**
 * Creates the only object that writes to the streams and decides about colours. All output goes through one filter: no
 * credential passes it, and no character that could steer the terminal.
 */
export function openTerminal(host: Host, options: GlobalOptions): Terminal {
  const { environment, output, errors } = host;
  const wantsColour = options.color !== false && environment["NO_COLOR"] === undefined && options.json !== true;
  const colours = pc.createColors(wantsColour && (environment["FORCE_COLOR"] !== undefined || output.isTTY === true));
  const marks = new ColourMarks();
  const paint: Paint = wantsColour
    ? {
        strong: marks.paintedBy(colours.bold),
        quiet: marks.paintedBy(colours.dim),
        good: marks.paintedBy(colours.green),
        bad: marks.paintedBy((text) => colours.bold(colours.red(text))),
        warn: marks.paintedBy(colours.yellow),
        accent: marks.paintedBy(colours.cyan),
      }
    : plainPaint;
  const secrets = new Secrets();
  const lines = (texts: readonly string[]): string => `${marks.shown(secrets.hide(texts.join("\n")))}\n`;
  const document = (data: unknown, indent?: number): string => `${secrets.hide(visibleJson(data, indent))}\n`;
  // The reader may have seen enough, as `head` has after some lines. Then nobody reads the rest.
  output.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code !== "EPIPE") throw error;
    host.exit(exitCodes.done);
  });
  const json = options.json === true;
  const quiet = options.quiet === true;
  return {
    host: {
      ...host,
      secrets,
      session: new Session(
        host.importer,
        [...workspaceLanguages, ...(host.languages?.more ?? [])],
        host.languages?.validate,
      ),
      trace: traceSteps(environment, (line) => errors.write(lines([line]))),
    },
    paint,
    json,
    quiet,
    result: (texts) => {
      if (!json && !quiet) output.write(lines(texts));
    },
    isTold: ({ level }) => !quiet || level !== "note",
    note: (texts) => {
      if (!json && texts.length > 0) errors.write(lines(texts));
    },
    defect: (texts) => {
      errors.write(lines(texts));
    },
    document: (data) => {
      if (json) output.write(document(data, 2));
    },
    line: (data) => {
      if (json) output.write(document(data));
    },
    data: (data) => {
      output.write(document(data, 2));
    },
  };
}
