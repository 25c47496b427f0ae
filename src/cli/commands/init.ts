import { ShownTexts } from "../../core/problem/shownTexts.js";
import { existsSync } from "node:fs";
import { resolve } from "node:path";
import prompts from "prompts";
import { isUrl } from "../../core/rest/documentNames.js";
import { problem } from "../../core/problem/problem.js";
import { renderProblem } from "../../core/report/renderProblem.js";
import { counted } from "../../core/report/paint.js";
import { exitCodes, Halt } from "../../workspace/project/halt.js";
import {
  adopt,
  assertNoConfiguration,
  freeFolder,
  readSource,
  writeInit,
  type ChosenSource,
  type InitOutcome,
} from "../../workspace/init/init.js";
import type { PlaceForSdk } from "../../workspace/languages/languageTools.js";
import { usualLanguage, workspaceLanguages } from "../../workspace/languages/index.js";
import { contractName, lookAround, type Surroundings } from "../../workspace/init/lookAround.js";
import type { TriedContract } from "../../workspace/init/tryContract.js";
import { problemJson } from "../output/problemJson.js";
import { readHeaders } from "../network/readHeaders.js";
import type { GlobalOptions, Terminal } from "../output/terminal.js";

const titles = workspaceLanguages.map(({ title }) => title).join(", ");
const titleOf = (language: string): string => workspaceLanguages.find(({ id }) => id === language)?.title ?? language;

export interface InitCommandOptions {
  readonly from: readonly string[];
  readonly run: readonly string[];
  readonly header: readonly string[];
  readonly sdk: string | undefined;
  readonly into: string | undefined;
  readonly language: string | undefined;
  readonly scripts: boolean;
  readonly yes: boolean;
}

/**
 * `rhema init`: finds contracts, tests them, and writes the configuration and the scripts.
 *
 * @returns the exit code
 */
export async function initCommand(
  terminal: Terminal,
  globals: GlobalOptions,
  options: InitCommandOptions,
): Promise<number> {
  const { host } = terminal;
  const root = host.folder;
  const configName = globals.config ?? "rhema.yaml";
  assertNoConfiguration(root, configName);
  const surroundings = lookAround(root);
  const isAsking = !options.yes && !terminal.json && host.input.isTTY === true && host.output.isTTY === true;
  const given = [
    ...options.from.map((text) => readSource(text, false)),
    ...options.run.map((text) => readSource(text, true)),
  ];
  const setup = new Setup(surroundings, terminal, readHeaders(options.header), isAsking);
  if (given.length > 0) for (const source of given) await setup.add(source);
  else if (isAsking) await setup.ask();
  else await setup.addFound(options.yes);
  const sdk = options.sdk ?? surroundings.name;
  const placeIn = async (language: string): Promise<PlaceForSdk> => {
    const { place } = (await workspaceLanguages.find(({ id }) => id === language)?.loadTools()) ?? {};
    return place?.(root, sdk) ?? { into: freeFolder(root, surroundings), settings: {} };
  };
  const answers = isAsking
    ? await askRest(placeIn, surroundings, options)
    : await withoutAsking(placeIn, surroundings, options);
  const outcome = writeInit(root, {
    contracts: setup.contracts,
    sdk,
    language: answers.language,
    into: answers.into,
    settings: answers.settings,
    configName,
    scripts: answers.scripts,
    surroundings,
  });
  terminal.result(report(outcome, setup.contracts, { restAnswers: answers, surroundings, terminal }));
  terminal.document({
    ...outcome,
    contracts: setup.contracts.map(({ problems, ...each }) => ({
      ...each,
      problems: problems.map((one) => problemJson(one, new ShownTexts(() => undefined))),
    })),
    exitCode: exitCodes.done,
  });
  return exitCodes.done;
}

/** Thrown if the user ends the questions. */
function ended(): Halt {
  return new Halt([problem("init.ended", "Cancelled. Nothing was written.")], exitCodes.usage);
}

async function asked<T>(question: Omit<prompts.PromptObject, "name">): Promise<T> {
  const { answer } = (await prompts(
    { ...question, name: "answer" },
    {
      onCancel: () => {
        throw ended();
      },
    },
  )) as { answer: T };
  return answer;
}

/** The name of a contract in the configuration and in the SDK. */
async function askName(initial: string, taken: ReadonlySet<string>): Promise<string> {
  const name = await asked<string>({
    type: "text",
    message: "What is its name?",
    initial,
    validate: (answer: string) =>
      contractName(answer.trim()) !== answer.trim()
        ? "A name begins with a lower-case letter. It contains lower-case letters, digits and hyphens."
        : !taken.has(answer.trim()) || "Another contract has that name.",
  });
  return name.trim();
}

class Setup {
  readonly contracts: TriedContract[] = [];

  constructor(
    private readonly surroundings: Surroundings,
    private readonly terminal: Terminal,
    private readonly headers: Readonly<Record<string, string>>,
    /** Whether a person reads the output and sees each contract that was found. */
    private readonly isWatched: boolean,
  ) {}

  async add(source: ChosenSource): Promise<void> {
    const taken = new Set(this.contracts.map(({ name }) => name));
    const { queries } = this.surroundings;
    const tried = await adopt(this.terminal.host, source, { queries, headers: this.headers, taken });
    if (!this.isWatched) {
      this.contracts.push(tried);
      return;
    }
    const { paint } = this.terminal;
    const aside = tried.setAside === 0 ? "" : paint.warn(`  ${counted(tried.setAside, "part")} skipped`);
    this.terminal.note([`  ${paint.good("found")} ${paint.accent(tried.name)}  ${tried.about}${aside}`]);
    const name = source.name ?? (await askName(tried.name, taken));
    this.contracts.push({ ...tried, name });
  }

  /** Adds every contract that was found. One that cannot be read is reported and left out. */
  async addFound(mayDefault: boolean): Promise<void> {
    const { contracts, otherLanguage } = this.surroundings;
    if (!mayDefault) {
      const found = contracts.map(({ from }) => `\`${sourceText(from)}\``).join(", ");
      throw new Halt(
        [
          problem("init.nothing", "Rhema cannot ask questions, because this is not a terminal.", {
            hint: `Use --yes for what was found${found === "" ? "" : ` (${found})`}, or --from FILE_OR_URL.`,
          }),
        ],
        exitCodes.usage,
      );
    }
    for (const { from } of contracts) await this.addIfReadable({ name: undefined, from });
    if (this.contracts.length === 0) throw nothingFound(otherLanguage);
  }

  private async addIfReadable(source: ChosenSource): Promise<boolean> {
    try {
      await this.add(source);
      return true;
    } catch (error) {
      if (!(error instanceof Halt)) throw error;
      const texts = new ShownTexts((document) => error.texts.get(document) || undefined);
      const shown = error.problems.map((each) => ({ ...each, level: "warning" as const }));
      this.terminal.note(shown.flatMap((each) => [...renderProblem(each, texts, this.terminal.paint), ""]));
      return false;
    }
  }

  async ask(): Promise<void> {
    const { contracts, framework, language } = this.surroundings;
    if (framework !== undefined)
      this.terminal.note([this.terminal.paint.quiet(`  ${framework} with ${titleOf(language)}`)]);
    if (contracts.length > 0) {
      const chosen = await asked<(ChosenSource["from"] | undefined)[]>({
        type: "multiselect",
        message: "Which contracts does this project consume?",
        choices: [
          ...contracts.map(({ from, protocol }) => ({
            title: `${sourceText(from)}  (${protocol === "rest" ? "REST" : "GraphQL"})`,
            value: from,
            selected: true,
          })),
          { title: "another one", value: "" },
        ],
        instructions: false,
        hint: "space selects, enter continues",
        min: 1,
      });
      for (const from of chosen)
        if (from !== "" && from !== undefined) await this.addIfReadable({ name: undefined, from });
      if (!chosen.includes("") && this.contracts.length > 0) return;
    }
    while (!(await this.addIfReadable(await this.askSource())));
  }

  private async askSource(): Promise<ChosenSource> {
    const text = await asked<string>({
      type: "text",
      message: "Where is the contract? A file, folder, URL, GraphQL endpoint, or a command that prints it",
      validate: (answer: string) => answer.trim() !== "" || "Enter its location. Ctrl-C cancels.",
    });
    const trimmed = text.trim();
    const isFile = existsSync(resolve(this.terminal.host.folder, trimmed)) || isUrl(trimmed) || !/\s/.test(trimmed);
    return readSource(trimmed, !isFile);
  }
}

function nothingFound(otherLanguage: string | undefined): Halt {
  const problems = [
    problem("init.nothing", "No contract was found in this folder.", {
      hint: "Use rhema init --from FILE_OR_URL, or --run COMMAND.",
    }),
  ];
  if (otherLanguage !== undefined) {
    const message = `This looks like a ${otherLanguage} project. SDKs are written in ${titles} for now.`;
    problems.push(problem("init.language", message, { level: "warning" }));
  }
  return new Halt(problems, exitCodes.usage);
}

async function withoutAsking(
  placeIn: (language: string) => Promise<PlaceForSdk>,
  surroundings: Surroundings,
  options: InitCommandOptions,
): Promise<RestAnswers> {
  const language = options.language ?? surroundings.language;
  const place = await placeIn(language);
  return { language, into: options.into ?? place.into, settings: place.settings, scripts: options.scripts };
}

async function askRest(
  placeIn: (language: string) => Promise<PlaceForSdk>,
  { manifest, language: shown }: Surroundings,
  options: InitCommandOptions,
): Promise<RestAnswers> {
  // A user of the default language does not want another one.
  const language = options.language ?? (shown === usualLanguage ? shown : await askLanguage(shown));
  const { into, settings } = await placeIn(language);
  const folder =
    options.into ??
    (await asked<string>({ type: "text", message: "What is the output folder of the SDK?", initial: into }));
  const scripts =
    options.scripts &&
    manifest !== undefined &&
    (await asked<boolean>({
      type: "confirm",
      message: "Add scripts to package.json that generate before dev and build?",
      initial: true,
    }));
  return { language, into: folder.trim() === "" ? into : folder.trim(), settings, scripts };
}

/** The answers to the questions besides those about contracts. */
interface RestAnswers {
  readonly language: string;
  readonly into: string;
  readonly settings: Readonly<Record<string, string>>;
  readonly scripts: boolean;
}

function askLanguage(shown: string): Promise<string> {
  const ids = workspaceLanguages.map(({ id }) => id);
  return asked<string>({
    type: "select",
    message: "Which language should the SDK have?",
    choices: workspaceLanguages.map(({ id, title }) => ({ title, value: id })),
    initial: ids.indexOf(shown),
  });
}

function sourceText(from: ChosenSource["from"]): string {
  if (typeof from === "string") return from;
  return "run" in from ? from.run : `${from[0] ?? ""}${from.length > 1 ? ` and ${String(from.length - 1)} more` : ""}`;
}

function report(
  outcome: InitOutcome,
  contracts: readonly TriedContract[],
  {
    restAnswers: { language, into },
    surroundings: { name },
    terminal: { paint },
  }: { readonly restAnswers: RestAnswers; readonly surroundings: Surroundings; readonly terminal: Terminal },
): string[] {
  const undrafted = contracts.filter(({ protocol, queries }) => protocol === "graphql" && queries === 0);
  const width = Math.max(...contracts.map((each) => each.name.length));
  const asking = ({ protocol, queries }: TriedContract): string =>
    protocol === "graphql" ? `, ${queries === 0 ? "no queries yet" : counted(queries, "query", "queries")}` : "";
  return [
    paint.good(`init: ${outcome.config} written; next: rhema generate`),
    ...contracts.map(
      (each) =>
        `  ${paint.accent(each.name.padEnd(width))}  ${each.about}${asking(each)}  ${paint.quiet(sourceText(each.settings.from))}`,
    ),
    `  ${paint.accent("SDK")} ${contractName(name) ?? name} in ${titleOf(language)}, in ${into}`,
    ...(outcome.scripts.length === 0
      ? []
      : [`  package.json has the script${outcome.scripts.length === 1 ? "" : "s"} ${outcome.scripts.join(", ")} now`]),
    ...(outcome.scriptsLeft.length === 0
      ? []
      : [
          `  ${paint.warn(`unchanged: ${outcome.scriptsLeft.join(", ")}`)}; add \`rhema generate && \` before its command`,
        ]),
    ...undrafted.map((each) => `  -> \`rhema draft ${each.name}\` drafts the first queries`),
    ...(outcome.toInstall ? ["  -> npm install --save-dev rhema"] : []),
  ];
}
