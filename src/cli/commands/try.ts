import { readFileSync } from "node:fs";
import { basename, resolve } from "node:path";
import { dump } from "js-yaml";
import prompts from "prompts";
import { fillArguments } from "../../core/call/fillArguments.js";
import { readArguments, type ReadingArguments, type WrittenArgument } from "../../core/call/readArguments.js";
import { credentialOf, publicAddress } from "../../core/text/secrets.js";
import { visible } from "../../core/text/visible.js";
import { isData } from "../../core/text/parseData.js";
import { problem } from "../../core/problem/problem.js";
import { counted, wrap } from "../../core/report/paint.js";
import { sampleArguments, sampleVariables } from "../../standin/page/sampleRequests.js";
import { credentialNames, shownTraffic, type ShownTraffic } from "../../standin/shownTraffic.js";
import { createStandin } from "../../standin/standin.js";
import { readOverride, overrideHeader } from "../../standin/override.js";
import { chosenContracts } from "../../workspace/configuration/chosenContracts.js";
import { fromEnvironment } from "../../workspace/configuration/fromEnvironment.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import { scalarFormats } from "../../workspace/generate/planContract.js";
import { openProject, type OpenedProject } from "../../workspace/project/openProject.js";
import { usualLanguage } from "../../workspace/languages/index.js";
import type { ProgramWriter, WrittenProgram } from "../../workspace/languages/languageTools.js";

import { findCall } from "../../workspace/try/findCall.js";
import type { FoundCall } from "../../workspace/try/foundCall.js";
import type { Exchange, Performed } from "../../workspace/try/performing.js";
import { readHeaders } from "../network/readHeaders.js";
import { wholeNumber } from "../wholeNumber.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

export interface TryCommandOptions {
  readonly call: string;
  /** Arguments as "name=value". */
  readonly texts: readonly string[];
  readonly contract?: string;
  readonly baseUrl?: string;
  readonly header: readonly string[];
  readonly override?: string;
  readonly seed: string;
  readonly code?: string;
  readonly yes?: boolean;
}

const width = 80;
const playedAt = "http://stand-in";
const usualPlay = "http://127.0.0.1:4020";

/**
 * `rhema try <call>`: makes one call and shows the data, or writes a small program for it.
 *
 * @returns the exit code
 * @throws Halt if the call or an argument is not valid
 */
export async function tryCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: TryCommandOptions,
): Promise<number> {
  const seed = wholeNumber("--seed", options.seed, 2 ** 31);
  const project = await openProject(terminal.host, globals.config);
  const contracts = chosenContracts(project, options.contract === undefined ? [] : [options.contract]);
  const call = await findCall(project, contracts, { wanted: options.call, id: usualLanguage });
  const { values, missing } = argumentsOf(call, options, { seed, files: filesIn(terminal.host.folder) });
  const own = Object.fromEntries(
    Object.entries(values).filter(([name]) => call.taken.some((each) => each.name === name)),
  );
  const standing = Object.fromEntries(
    call.standing.flatMap(({ name }) => (Object.hasOwn(values, name) ? [[name, values[name]]] : [])),
  );
  if (options.code !== undefined) {
    const baseUrl = publicAddress(options.baseUrl ?? `${usualPlay}/${call.contract}`);
    const { writer, written } = await writing(project, call, options.call);
    const program = await writer.write(project, options.code, written, { baseUrl, values });
    terminal.result(programLines(program, call, terminal));
    const { run: _run, ...document } = program;
    terminal.document({ ...document, exitCode: exitCodes.done });
    return exitCodes.done;
  }
  if (options.baseUrl !== undefined) await assertMeant(call, options, terminal);
  const headers = Object.fromEntries(
    Object.entries(readHeaders(options.header)).map(([name, value]) => [
      name,
      fromEnvironment(value, project.environment, "`try`"),
    ]),
  );
  const real = options.baseUrl === undefined || !URL.canParse(options.baseUrl) ? undefined : new URL(options.baseUrl);
  if (real) terminal.host.secrets.learnAddress(real);
  terminal.host.secrets.learnHeaders(Object.entries(headers));
  const { performer } = await project.session.tools(usualLanguage);
  if (!performer) throw new Error(`Nothing performs calls in ${usualLanguage}.`);
  const performed = await performer.perform(call, {
    importer: terminal.host.importer,
    baseUrl: options.baseUrl === undefined ? `${playedAt}/${call.contract}` : publicAddress(options.baseUrl),
    fetch: options.baseUrl === undefined ? playing(project, call, seed) : (request) => fetch(request),
    auth: options.baseUrl === undefined ? Object.fromEntries(call.credentials.map((name) => [name, "any-token"])) : {},
    headers: { ...(real ? credentialOf(real) : {}), ...headers, ...overrideHeaders(options) },
    standing,
    values: own,
  });
  const exitCode = performed.outcome.ok ? exitCodes.done : exitCodes.findings;
  terminal.result(report(call, performed, { missing, options, terminal }));
  terminal.document(documentOf(call, performed, { missing, exitCode }));
  return exitCode;
}

/**
 * The writer of programs for a call: that of an SDK's language with the call, otherwise that of the language that makes
 * calls.
 */
async function writing(
  project: OpenedProject,
  call: FoundCall,
  wanted: string,
): Promise<{ readonly writer: ProgramWriter; readonly written: FoundCall }> {
  const { configuration, session } = project;
  const sdks = Object.values(configuration.sdks).filter(({ covers }) => covers.includes(call.contract));
  for (const id of [...sdks.map(({ language }) => language), usualLanguage]) {
    const { writer } = await session.tools(id);
    if (!writer) continue;
    const written = id === usualLanguage ? call : await findCall(project, [call.contract], { wanted, id });
    return { writer, written };
  }
  throw new Error(`Nothing writes programs in ${usualLanguage}.`);
}

/** The values to send: the user's, and for the stand-in server samples for missing ones. */
function argumentsOf(
  call: FoundCall,
  { texts, baseUrl, code }: TryCommandOptions,
  { seed, files }: { readonly seed: number; readonly files: Omit<ReadingArguments, "types"> },
): { readonly values: Readonly<Record<string, unknown>>; readonly missing: readonly string[] } {
  const taken = [...call.taken, ...call.standing];
  const written = texts.map((text): WrittenArgument => {
    const at = text.indexOf("=");
    if (at > 0) return { path: text.slice(0, at), value: text.slice(at + 1) };
    const message = `\`${text}\` is not an argument. Use name=value.`;
    throw new Halt([problem("try.argument", message, { hint: "For example berthId=B12." })], exitCodes.usage);
  });
  const { values, faults } = readArguments(written, taken, { types: call.types, ...files });
  if (faults.length > 0)
    throw new Halt(
      faults.map(({ path, why, hint }) =>
        problem("try.argument", `\`${path}\` ${why}.`, hint === undefined ? {} : { hint }),
      ),
      exitCodes.usage,
    );
  const filled = fillArguments(values, taken, { types: call.types, sampleOf: sampleOf(call, seed) });
  if (baseUrl !== undefined && code === undefined && filled.missing.length > 0) {
    const names = filled.missing.map((each) => `\`${each}\``).join(", ");
    throw new Halt(
      [
        problem("try.missing", `${call.name} needs ${names}.`, {
          hint: `Add ${filled.missing.map((each) => `${each}=…`).join(" ")}.`,
        }),
      ],
      exitCodes.usage,
    );
  }
  return filled;
}

/** The user's own files, by their path from a folder. */
function filesIn(folder: string): Omit<ReadingArguments, "types"> {
  const read = <T>(path: string, made: (bytes: Buffer) => T): T | undefined => {
    try {
      return made(readFileSync(resolve(folder, path)));
    } catch {
      return undefined;
    }
  };
  return {
    fileOf: (path) => read(path, (bytes) => new File([bytes], basename(path))),
    textOf: (path) => read(path, (bytes) => bytes.toString("utf8")),
  };
}

function sampleOf(call: FoundCall, seed: number): (name: string) => unknown {
  const { source } = call;
  if (source.protocol === "graphql") {
    const variables = sampleVariables(source.schema, source.text, seed);
    return (name) => variables[name];
  }
  const made = sampleArguments(source.contract, source.operation, seed);
  return (name) => {
    const argument = source.arguments.get(name);
    if (argument?.source.kind === "parameter") return made.parameter(argument.source.parameter.name);
    return argument && made.body(argument.source.content.type);
  };
}

function playing(project: OpenedProject, call: FoundCall, seed: number): (request: Request) => Promise<Response> {
  const { contract, schema, raw } = call.played;
  const scalars = scalarFormats(project.configuration.contracts[call.contract]);
  const standin = createStandin([{ contract, schema, raw, scalars }], { seed, eventEveryMs: 10, asksAuth: true });
  return async (request) => standin.fetch(request);
}

function overrideHeaders({ override, baseUrl }: TryCommandOptions): Record<string, string> {
  if (override === undefined || baseUrl !== undefined) return {};
  const read = readOverride(override);
  if (typeof read !== "string") return { [overrideHeader]: override };
  throw new Halt([problem("play.override", `Invalid --override "${override}": ${read}.`)], exitCodes.usage);
}

/** A real server is only changed with --yes. */
async function assertMeant(call: FoundCall, { yes, baseUrl }: TryCommandOptions, terminal: Terminal): Promise<void> {
  if (call.isSafe || yes === true) return;
  const isAsking = terminal.host.input.isTTY === true && terminal.host.output.isTTY === true && !terminal.json;
  const message = `${call.label} changes something at ${baseUrl ?? ""}.`;
  const answers: prompts.Answers<"meant"> = isAsking
    ? await prompts({ type: "confirm", name: "meant", message: `${message} Run it?`, initial: false })
    : { meant: false };
  const meant = answers.meant === true;
  if (!meant) throw new Halt([problem("try.unsafe", message, { hint: "Use --yes to allow it." })], exitCodes.usage);
}

function report(
  call: FoundCall,
  { exchanges, elapsedMs, outcome }: Performed,
  {
    missing,
    options,
    terminal: { paint },
  }: { readonly missing: readonly string[]; readonly options: TryCommandOptions; readonly terminal: Terminal },
): string[] {
  const shown = trafficOf(call);
  const [exchange] = exchanges.slice(-1);
  const by = options.baseUrl ?? "the stand-in server";
  const took = `in ${elapsedMs.toFixed(0)} ms`;
  const status = exchange?.status === undefined ? "" : ` ${String(exchange.status)}`;
  const head = outcome.ok
    ? paint.good(`try: ${call.name} responded${status} ${took}, from ${by}`)
    : paint.bad(
        `try: ${call.name} failed${status === "" ? ` (${String(outcome.failure.status)})` : status} ${took}, from ${by}`,
      );
  return [
    head,
    ...(exchange ? requestLines(exchange, options.baseUrl === undefined) : []),
    ...(missing.length === 0
      ? []
      : wrap(`sample values used for ${missing.join(", ")}`, width - 2, "  ").map((line) => `  ${paint.quiet(line)}`)),
    "",
    ...(outcome.ok
      ? [...tree(outcome.answer), ...(outcome.isCut ? [paint.quiet("  … the stream continues")] : [])]
      : failureLines(outcome.failure)),
  ].map((line) => line.trimEnd());

  function requestLines({ method, url, headers, body }: Exchange, isPlayed: boolean): string[] {
    const { pathname, search, origin } = new URL(url);
    const address = `${isPlayed ? "" : origin}${pathname}${shown.query(search)}`;
    const named = Object.entries(shown.headers(headers)).filter(
      ([name]) => !/^(?:accept|content-length|user-agent)$/.test(name),
    );
    return [
      `  ${paint.accent(method)} ${visible(address)}`,
      ...named.map(([name, value]) => `    ${paint.quiet(visible(`${name}: ${value}`))}`),
      ...bodyLines(body, shown).map((line) => `    ${visible(line)}`),
    ];
  }

  function failureLines({
    message,
    body,
    errors,
    data,
    cause,
  }: Extract<typeof outcome, { ok: false }>["failure"]): string[] {
    return [
      ...wrap(visible(message), width - 2).map((line) => `  ${line}`),
      ...(body === undefined || body === "" ? [] : tree(typeof body === "string" ? (parseJson(body) ?? body) : body)),
      ...(errors === undefined ? [] : tree({ errors, data })),
      ...(cause instanceof Error ? [paint.quiet(`  ${visible(cause.message)}`)] : []),
    ];
  }
}

function trafficOf({ played }: FoundCall): ShownTraffic {
  return shownTraffic(credentialNames([played.contract]));
}

/** A GraphQL request in readable form: the query, then its variables. */
function bodyLines(body: string | undefined, shown: ShownTraffic): string[] {
  if (body === undefined) return [];
  const parsed = parseJson(body);
  if (!isData(parsed) || typeof parsed["query"] !== "string") return shown.body(body).split("\n");
  const { query, variables } = parsed;
  const isEmpty = !isData(variables) || Object.keys(variables).length === 0;
  return [...query.split("\n"), ...(isEmpty ? [] : shown.body(JSON.stringify({ variables })).split("\n"))];
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

const longestAnswer = 400;

/** Data as a readable tree. */
function tree(value: unknown): string[] {
  if (value === undefined) return ["  (no body)"];
  if (typeof value === "string") return value.split("\n").map((line) => `  ${visible(line)}`);
  if (value instanceof Blob)
    return [`  ${counted(value.size, "byte")} of ${value.type === "" ? "no type" : value.type}`];
  const text = dump(value, { noRefs: true, lineWidth: width - 4, skipInvalid: true });
  const lines = text.trimEnd().split("\n");
  const more = lines.length - longestAnswer;
  return [
    ...lines.slice(0, longestAnswer).map((line) => `  ${visible(line)}`),
    ...(more > 0 ? [`  … ${counted(more, "more line")}; --json prints all`] : []),
  ];
}

function documentOf(
  call: FoundCall,
  { exchanges, elapsedMs, outcome }: Performed,
  { missing, exitCode }: { readonly missing: readonly string[]; readonly exitCode: number },
): unknown {
  const shown = trafficOf(call);
  return {
    call: call.name,
    contract: call.contract,
    operation: call.label,
    exchanges: exchanges.map(({ url, headers, body, ...rest }) => {
      const { search, origin, pathname } = new URL(url);
      return {
        ...rest,
        url: `${origin === playedAt ? "" : origin}${pathname}${shown.query(search)}`,
        headers: shown.headers(headers),
        body: body === undefined ? undefined : shown.body(body),
      };
    }),
    elapsedMs: Math.round(elapsedMs),
    madeUp: missing,
    ...(outcome.ok
      ? {
          answer:
            outcome.answer instanceof Blob ? { bytes: outcome.answer.size, type: outcome.answer.type } : outcome.answer,
        }
      : {
          failure: {
            status: outcome.failure.status,
            message: outcome.failure.message,
            body: outcome.failure.body,
            errors: outcome.failure.errors,
            data: outcome.failure.data,
          },
        }),
    exitCode,
  };
}

function programLines({ program, run, written, kept }: WrittenProgram, call: FoundCall, { paint }: Terminal): string[] {
  const head =
    written.length === 0
      ? paint.good(`try: ${program} already exists, nothing was written`)
      : paint.good(`try: ${program} written, ${counted(written.length, "file")} in all`);
  return [
    head,
    ...(kept.length === 0 ? [] : [paint.quiet(`  ${counted(kept.length, "file")} unchanged`)]),
    `  -> rhema play ${call.contract}`,
    `  -> ${run}`,
  ];
}
