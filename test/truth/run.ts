import { readdirSync, readFileSync } from "node:fs";
import { load } from "js-yaml";
import type { Json } from "../random/makeSchema.js";
import { restEdits } from "./restEdits.js";
import { RestTruth } from "./restTruth.js";
import { misses, percent, predicted, score, type Case } from "./truth.js";
import { chandlery } from "./zoo.js";

const [rounds = "1", only = ""] = process.argv.slice(2);
const wire = "runtimes/typescript/wire/";
const runtime = new Map(readdirSync(wire).map((file) => [file, readFileSync(wire + file, "utf8")]));
const demo = load(readFileSync("demo/contracts/v1/berths.yaml", "utf8")) as Json;
const started = Date.now();
const bases = [
  new RestTruth("chandlery", chandlery(), runtime, { verify: "answers" }),
  new RestTruth("berths", demo, runtime, { verify: "answers" }),
];
console.log(
  bases.map(({ base, lines }) => `${base}: ${String(lines)} uses`).join(", "),
  `${String(Date.now() - started)} ms`,
);
for (const base of bases) await base.release();
console.log(`not tried: ${bases.flatMap(({ untried }) => untried).join(", ")}`);
const cases: Case[] = [];
for (let round = 0; round < Number(rounds); round++)
  for (const base of bases)
    for (const { kind } of restEdits) {
      if (!kind.includes(only)) continue;
      const found = await base.judge([kind], 1000 * round + restEdits.findIndex((edit) => edit.kind === kind));
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
for (const each of cases.filter(({ isMeaningless, changes }) => isMeaningless && changes.length > 0))
  console.log(
    `\nmeaningless ${each.base} ${each.kinds.join()}: ${each.changes.map(({ message }) => message).join(" ")}`,
  );
for (const clock of ["code", "apps"] as const)
  for (const level of ["breaking", "risky", "compatible"] as const) {
    const { truths, found, predicted: said, right } = score(cases, clock, level);
    console.log(
      `${clock} ${level}: ${String(truths)} are, recall ${percent(found, truths)}; ${String(said)} said, precision ${percent(right, said)}`,
    );
  }
console.log(`${String(cases.length)} cases, ${String(Date.now() - started)} ms`);
