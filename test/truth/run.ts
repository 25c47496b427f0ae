import { readdirSync, readFileSync } from "node:fs";
import { load } from "js-yaml";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";
import { graphqlEdits } from "./graphqlEdits.js";
import { GraphqlTruth } from "./graphqlTruth.js";
import { regattaQueries, regattaSchema } from "./graphqlBases.js";
import { restEdits } from "./restEdits.js";
import { RestTruth } from "./restTruth.js";
import { misses, percent, predicted, score, type Case } from "./truth.js";
import { chandlery } from "./zoo.js";

/** Something that contracts are changed in, with the kinds of changes there are. */
interface Bench {
  readonly base: string;
  readonly kinds: readonly string[];
  readonly judge: (kinds: readonly string[], seed: number) => Promise<Case | undefined> | Case | undefined;
}

const [singles = "300", several = "0", words = "", first = "1"] = process.argv.slice(2);
const folder = "runtimes/typescript/wire/";
const runtime = new Map(readdirSync(folder).map((file) => [file, readFileSync(folder + file, "utf8")]));
const started = Date.now();

async function benches(): Promise<Bench[]> {
  const berths = load(readFileSync("demo/contracts/v1/berths.yaml", "utf8")) as Json;
  const passages = readFileSync("demo/contracts/v1/passages.graphql", "utf8");
  const queries = readdirSync("demo/app/queries").map((file) => readFileSync(`demo/app/queries/${file}`, "utf8"));
  const verified = { verify: "answers" } as const;
  const decoded = {
    verify: "answers",
    choices: "open",
    dates: "decoded",
    int64: "bigint",
  } as const;
  const rest = [
    new RestTruth("chandlery", chandlery(), runtime, verified),
    new RestTruth("chandlery, open and decoded", chandlery(), runtime, decoded),
    new RestTruth("berths", berths, runtime, verified),
  ];
  for (const each of rest) {
    await each.release();
    console.log(
      `${each.base}: ${String(each.lines)} uses${each.untried.length > 0 ? `, not tried: ${each.untried.join(", ")}` : ""}`,
    );
  }
  const graphql = [
    new GraphqlTruth("regatta", regattaSchema, regattaQueries, runtime),
    new GraphqlTruth("regatta, open", regattaSchema, regattaQueries, runtime, { unions: "open", choices: "open" }),
    new GraphqlTruth("passages", passages, queries, runtime),
  ];
  for (const each of graphql) console.log(`${each.base}: ${String(each.lines)} uses`);
  const restKinds = restEdits.map(({ kind }) => kind);
  const graphqlKinds = graphqlEdits.map(({ kind }) => kind);
  return [
    ...rest.map((each) => ({
      base: each.base,
      kinds: restKinds,
      judge: (kinds: readonly string[], seed: number) => each.judge(kinds, seed),
    })),
    ...graphql.map((each) => ({
      base: each.base,
      kinds: graphqlKinds,
      judge: (kinds: readonly string[], seed: number) => each.judge(kinds, seed),
    })),
  ].filter(({ base }) => words === "" || !words.startsWith("@") || base.includes(words.slice(1)));
}

const all = await benches();
const isWanted = (kind: string): boolean => words === "" || words.startsWith("@") || kind.includes(words);
const cases: Case[] = [];
const done = new Map<string, number>();
for (let seed = Number(first); cases.length < Number(singles); seed++) {
  const before = cases.length;
  for (const bench of all)
    for (const kind of bench.kinds.filter(isWanted)) {
      if (cases.length >= Number(singles)) break;
      const found = await bench.judge([kind], seed * 7919 + done.size);
      if (!found) continue;
      cases.push(found);
      done.set(kind, (done.get(kind) ?? 0) + 1);
    }
  if (cases.length === before) break;
}
const random = new Randomness(Number(first));
for (let count = 0; count < Number(several); count++) {
  const bench = random.pick(all);
  const kinds = Array.from({ length: 3 + random.below(4) }, () => random.pick(bench.kinds));
  const found = await bench.judge([...new Set(kinds)], Number(first) * 31 + count);
  if (found) cases.push(found);
}

for (const clock of ["code", "apps"] as const)
  for (const each of misses(cases, clock)) {
    console.log(
      `\n${clock} ${each.base} ${String(each.seed)} ${each.kinds.join(" + ")}: said ${predicted(each.changes, clock)}, is ${each.facts[clock] ?? ""}`,
    );
    for (const change of each.changes) console.log(`   ${change.code} ${change.verdict[clock]}: ${change.message}`);
    for (const line of (each.evidence[clock] ?? []).slice(0, 3)) console.log(`   > ${line}`);
  }
const noisy = cases.filter(({ isMeaningless, changes }) => isMeaningless && changes.length > 0);
for (const each of noisy)
  console.log(
    `\nmeaningless ${each.base} ${each.kinds.join()}: ${each.changes.map(({ message }) => message).join(" ")}`,
  );

const kinds = new Set(all.flatMap((bench) => bench.kinds)).size;
const unseen = [...new Set(all.flatMap((bench) => bench.kinds))].filter((kind) => isWanted(kind) && !done.has(kind));
console.log(
  `\n${String(done.size)} of ${String(kinds)} kinds of edits applied${unseen.length > 0 ? `; never: ${unseen.join(", ")}` : ""}`,
);
const meaningless = cases.filter((each) => each.isMeaningless);
console.log(`${String(meaningless.length)} edits that mean nothing, something said of ${String(noisy.length)}`);
for (const clock of ["code", "apps"] as const)
  for (const level of clock === "apps" ? (["breaking"] as const) : (["breaking", "risky", "compatible"] as const)) {
    const { truths, found, predicted: said, right } = score(cases, clock, level);
    console.log(
      `${clock} ${level}: ${String(truths)} are, recall ${percent(found, truths)}; ${String(said)} said, precision ${percent(right, said)}`,
    );
  }
console.log(`${String(cases.length)} cases, ${String(Math.round((Date.now() - started) / 1000))} s`);
