import { readdirSync, readFileSync } from "node:fs";
import { load } from "js-yaml";
import type { Json } from "../test/proof/random/makeSchema.js";
import { Randomness } from "../test/proof/random/randomness.js";
import { runtimeSources } from "../src/workspace/generate/runtimeSources.js";
import { regattaQueries, regattaSchema } from "./graphqlBases.js";
import { graphqlEdits } from "./graphqlEdits.js";
import { GraphqlTruth } from "./graphqlTruth.js";
import { restEdits } from "./restEdits.js";
import { RestTruth } from "./restTruth.js";
import { misses, percent, predicted, score, scoreInUse, type AppCase, type Case, type Clock } from "./truth.js";
import { chandlery } from "./zoo.js";

/** A base whose contract is changed, and the kinds of edits. */
interface Bench {
  readonly base: string;
  readonly uses: number;
  readonly untried: readonly string[];
  readonly kinds: readonly string[];
  /** @param withApp whether an app that uses little is rated too */
  readonly judge: (kinds: readonly string[], seed: number, withApp: boolean) => Promise<Case | undefined>;
}

export interface TruthOptions {
  /** The number of cases with one edit. */
  readonly singles: number;
  /** The number of cases with three to six edits at once. */
  readonly several: number;
  /** Only kinds of edits with these words. */
  readonly words: string;
  readonly seed: number;
  /** An app that uses little is rated in one of this many cases. */
  readonly appEvery: number;
  /** Called before each case with the number of finished ones. */
  readonly onCase?: (done: number) => void;
}

export interface Truth {
  readonly benches: readonly Bench[];
  readonly cases: readonly Case[];
  /** Kinds of edits that were wanted and found nothing to change. */
  readonly never: readonly string[];
}

/** The bases: the demo's contracts and made-up ones, some of them also with other settings. */
async function makeBenches(root: string): Promise<Bench[]> {
  const read = (path: string): string => readFileSync(`${root}/${path}`, "utf8");
  const runtime = runtimeSources(`${root}/runtimes/typescript`);
  const queries = readdirSync(`${root}/demo/app/queries`).map((file) => read(`demo/app/queries/${file}`));
  const verified = { verify: "answers" } as const;
  const decoded = { ...verified, choices: "open", dates: "decoded", int64: "bigint" } as const;
  const pages = Object.fromEntries(
    ["listBerths", "listReservations", "listVessels"].map((call) => [
      call,
      { by: "cursor", parameter: "cursor" } as const,
    ]),
  );
  const rest = [
    new RestTruth("chandlery", chandlery(), runtime, verified, { root }),
    new RestTruth("chandlery, open and decoded", chandlery(), runtime, decoded, { root }),
    new RestTruth("berths", load(read("demo/contracts/v1/berths.yaml")) as Json, runtime, verified, {
      root,
      rest: { pages },
    }),
  ];
  for (const each of rest) await each.release();
  const open = { unions: "open", choices: "open" } as const;
  const graphql = [
    new GraphqlTruth("regatta", regattaSchema, regattaQueries, runtime, {}, root),
    new GraphqlTruth("regatta, open", regattaSchema, regattaQueries, runtime, open, root),
    new GraphqlTruth("passages", read("demo/contracts/v1/passages.graphql"), queries, runtime, {}, root),
  ];
  for (const each of graphql) await each.prepare();
  return [
    ...rest.map((each) => benchOf(each, restEdits, each.untried)),
    ...graphql.map((each) => benchOf(each, graphqlEdits, [])),
  ];
}

function benchOf(
  truth: Pick<Bench, "base" | "judge"> & { readonly lines: number },
  edits: readonly { readonly kind: string }[],
  untried: readonly string[],
): Bench {
  return {
    base: truth.base,
    uses: truth.lines,
    untried,
    kinds: edits.map(({ kind }) => kind),
    judge: (kinds, seed, withApp) => truth.judge(kinds, seed, withApp),
  };
}

/** Edits contracts at random: first single edits, each kind in turn, then several at once. */
export async function measured(root: string, options: TruthOptions): Promise<Truth> {
  const { singles, several, words, seed, appEvery } = options;
  const benches = await makeBenches(root);
  const isWanted = (kind: string): boolean => kind.includes(words);
  const cases: Case[] = [];
  const done = new Set<string>();
  const tried = new Set<string>();
  const withApp = (): boolean => cases.length % appEvery === 0;
  for (let round = seed; cases.length < singles; round++) {
    const before = cases.length;
    for (const kind of new Set(benches.flatMap((bench) => bench.kinds.filter(isWanted)))) {
      if (cases.length >= singles) break;
      tried.add(kind);
      await breath();
      options.onCase?.(cases.length);
      const found = await firstOf(rotated(benches, round + cases.length), kind, {
        seed: round * 7919 + cases.length,
        withApp: withApp(),
      });
      if (!found) continue;
      cases.push(found);
      done.add(kind);
    }
    if (cases.length === before) break;
  }
  const random = new Randomness(seed);
  for (let count = 0; count < several; count++) {
    await breath();
    options.onCase?.(cases.length);
    const bench = random.pick(benches);
    const kinds = Array.from({ length: 3 + random.below(4) }, () => random.pick(bench.kinds));
    const found = await bench.judge([...new Set(kinds)], seed * 31 + count * 17, withApp());
    if (found) cases.push(found);
  }
  return { benches, cases, never: [...tried].filter((kind) => !done.has(kind)) };
}

/** Weak references are released only between two turns of the event loop, and a case alone takes none. */
async function breath(): Promise<void> {
  await new Promise((resolve) => setImmediate(resolve));
}

/** Makes an edit on the first base where it gives a readable contract, with each kind on one base in a round. */
async function firstOf(
  benches: readonly Bench[],
  kind: string,
  { seed, withApp }: { readonly seed: number; readonly withApp: boolean },
): Promise<Case | undefined> {
  for (let attempt = 0; attempt < mostAttempts; attempt++)
    for (const bench of benches) {
      const found = bench.kinds.includes(kind) ? await bench.judge([kind], seed + attempt * 101, withApp) : undefined;
      if (found) return found;
    }
  return undefined;
}

const mostAttempts = 8;

function rotated<T>(items: readonly T[], by: number): T[] {
  const at = by % items.length;
  return [...items.slice(at), ...items.slice(0, at)];
}

/** Returns the misses with their evidence, then recall and precision for each verdict, level and rule. */
export function told({ benches, cases, never }: Truth): string[] {
  const rows: string[] = [];
  for (const { base, uses, untried } of benches)
    rows.push(`${base}: ${String(uses)} uses${untried.length > 0 ? `; calls not tried: ${untried.join(", ")}` : ""}`);
  for (const clock of ["code", "apps"] as const)
    for (const each of misses(cases, clock)) rows.push("", ...missRows(each, clock));
  for (const clock of ["code", "apps"] as const)
    for (const each of cases)
      if (each.inUse?.breaks[clock] !== undefined && each.inUse.said[clock] !== each.inUse.breaks[clock])
        rows.push("", ...appRows(each, each.inUse, clock));
  const noisy = cases.filter(({ isMeaningless, changes }) => isMeaningless && changes.length > 0);
  for (const { base, kinds, changes } of noisy)
    rows.push("", `${base}, ${kinds.join()}: ${changes.map(({ message }) => message).join(" ")}`);
  const kinds = new Set(benches.flatMap((bench) => bench.kinds)).size;
  const applied = new Set(cases.flatMap((each) => each.kinds)).size;
  rows.push(
    "",
    `${String(applied)} of ${String(kinds)} kinds of edits applied${never.length > 0 ? `; nothing to change for: ${never.join(", ")}` : ""}`,
  );
  const meaningless = cases.filter((each) => each.isMeaningless).length;
  rows.push(`${String(meaningless)} cases that mean nothing, something said of ${String(noisy.length)}`);
  for (const [clock, levels] of [
    ["code", ["breaking", "risky", "compatible"]],
    ["apps", ["breaking"]],
  ] as const)
    for (const level of levels) {
      const { truths, found, predicted: said, right } = score(cases, clock, level);
      rows.push(
        `${clock} ${level}: ${String(truths)} are, recall ${percent(found, truths)}; ${String(said)} said, precision ${percent(right, said)}`,
      );
    }
  for (const clock of ["code", "apps"] as const) {
    const { truths, found, predicted: said, right } = scoreInUse(cases, clock);
    rows.push(
      `${clock} breaking, with an app that uses some of it: ${String(truths)} are, recall ${percent(found, truths)}; ${String(said)} said, precision ${percent(right, said)}`,
    );
  }
  rows.push(
    ...ruleRows(cases),
    ...blameRows(cases),
    `${String(cases.length)} cases, ${String(cases.filter((each) => each.kinds.length > 1).length)} of several edits`,
  );
  return rows;
}

function missRows(each: Case, clock: Clock): string[] {
  const said = predicted(each.changes, clock);
  return [
    `${clock}, ${each.base}, seed ${String(each.seed)}, ${each.kinds.join(" + ")}: said ${said}, is ${each.facts[clock] ?? ""}`,
    ...each.changes.map(({ code, verdict, message }) => `   ${code} ${verdict[clock]}: ${message}`),
    ...(each.evidence[clock] ?? []).slice(0, 3).map((line) => `   > ${line}`),
  ];
}

/** A wrong verdict on an app that uses little. */
function appRows({ base, seed, kinds }: Case, app: AppCase, clock: Clock): string[] {
  const inUse = app.changes.filter(({ use }) => use !== "not used");
  return [
    `${clock} with an app, ${base}, seed ${String(seed)}, ${kinds.join(" + ")}: ${app.said[clock] ? "said to break, does not" : "breaks, and is not said to"}`,
    ...(inUse.length > 0 ? inUse : app.changes).map(
      ({ code, use, verdict, message, hits }) =>
        `   ${code} ${verdict[clock]}, ${use}: ${message} ${hits
          .slice(0, 3)
          .map(({ owner, how, file, line }) => `(${owner} ${how} ${file}:${String(line)})`)
          .join(" ")}`,
    ),
    ...app.evidence[clock].slice(0, 3).map((line) => `   > ${line}`),
    ...[...app.files].flatMap(([path, text]) => [`   | ${path}`, ...text.split("\n").map((line) => `   |   ${line}`)]),
  ];
}

/** For each rule that alone predicted "breaking" in a case: how often that was right. */
function ruleRows(cases: readonly Case[]): string[] {
  const rules = new Map<string, Record<Clock, [number, number]>>();
  for (const each of cases)
    for (const clock of ["code", "apps"] as const) {
      const breaking = new Set(
        each.changes.filter(({ verdict }) => verdict[clock] === "breaking").map(({ code }) => code),
      );
      const [only] = breaking;
      if (only === undefined || breaking.size > 1 || each.facts[clock] === undefined) continue;
      const counts = rules.get(only) ?? { code: [0, 0], apps: [0, 0] };
      counts[clock][0]++;
      if (each.facts[clock] === "breaking") counts[clock][1]++;
      rules.set(only, counts);
    }
  const words = ([said, right]: [number, number]): string => (said === 0 ? "-" : `${String(right)} of ${String(said)}`);
  return [...rules]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([code, { code: onCode, apps }]) => `  ${code}: code ${words(onCode)}, apps ${words(apps)}`);
}

function blameRows(cases: readonly Case[]): string[] {
  const all = cases.flatMap(({ blame }) => blame ?? []);
  if (all.length === 0) return [];
  const right = all.reduce((sum, each) => sum + each.right, 0);
  const wrong = all.flatMap((each) => each.wrong);
  const alone = all.reduce((sum, each) => sum + each.alone, 0);
  return [
    ...wrong.slice(0, 12).map((each) => `  not its change: ${each}`),
    `compile errors of several edits under the right change: ${percent(right, right + wrong.length)} of ${String(right + wrong.length)}; ${String(alone)} that no edit causes alone`,
  ];
}
