import { expect, it } from "vitest";
import { printJavascriptSdk } from "../../../support/javascriptSdk.js";
import { runtime } from "../../../support/readRest.js";
import { seedsFrom } from "../seedsFrom.js";
import { testedCore } from "../testedCore.js";
import { checkQueries } from "./checkQueries.js";

const schemas = Number(process.env["RANDOM_SCHEMAS"] ?? 40);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);
const batch = 25;

it(
  `queries of ${String(schemas)} random schemas have exactly the types of what a server answers`,
  () => {
    const occurred = new Map<string, number>();
    const total = { queries: 0, taken: 0, refused: 0, discarded: 0 };
    const failures: string[] = [];
    for (let seed = firstSeed; seed < firstSeed + schemas; seed += batch) {
      const checked = checkQueries(seedsFrom(seed, Math.min(batch, firstSeed + schemas - seed)), {
        runtime,
        lint: seed === firstSeed,
      });
      for (const key of ["queries", "taken", "refused", "discarded"] as const) total[key] += checked[key];
      for (const [feature, times] of checked.occurred) occurred.set(feature, (occurred.get(feature) ?? 0) + times);
      failures.push(...checked.failures);
    }
    const rows = [...occurred].sort().map(([feature, times]) => `${feature} ${String(times)}`);
    process.stdout.write(
      `${String(schemas)} random schemas, ${String(total.queries)} valid queries (${String(total.discarded)} others discarded); the compiler took ${String(total.taken)} values ` +
        `and refused ${String(total.refused)}, ${String(failures.length)} failures\noccurred: ${rows.join(", ")}\n`,
    );
    expect(failures).toEqual([]);
    expect(total.queries).toBe(schemas * 3);
    expect(everyFeature.filter((feature) => !occurred.has(feature))).toEqual([]);
  },
  Math.max(600_000, schemas * 2_000),
);

it("with every setting changed they compile and lint, and accept whole responses", () => {
  const settings = {
    fragments: "sealed",
    unions: "open",
    choices: "open",
    testing: true,
    cached: true,
    failures: "return",
  } as const;
  const { failures } = checkQueries(seedsFrom(firstSeed + 5000, 10), { runtime, lint: true, settings });
  expect(failures).toEqual([]);
}, 300_000);

it("SDKs in JavaScript declare the same as those in TypeScript", () => {
  const core = { ...testedCore, printTypescriptSdk: printJavascriptSdk };
  const checked = checkQueries(seedsFrom(firstSeed, 15), { core, runtime, lint: false });
  expect(checked.failures).toEqual([]);
  expect(Math.min(checked.taken, checked.refused)).toBeGreaterThan(100);
}, 300_000);

const everyFeature = [
  "a field too few",
  "a field too many",
  "a fragment spread twice",
  "a value of another kind",
  "a variable left out",
  "abstract answered",
  "alias",
  "another type's name",
  "argument",
  "constant condition",
  "deprecated field",
  "description",
  "field narrower than its interface's",
  "include",
  "include and skip",
  "inline fragment without a type",
  "inline fragment: abstract in abstract",
  "inline fragment: abstract in object",
  "inline fragment: object in abstract",
  "inline fragment: object in object",
  "list",
  "list of lists",
  "merged selections",
  "mutation",
  "named fragment: abstract in abstract",
  "named fragment: abstract in object",
  "named fragment: object in abstract",
  "named fragment: object in object",
  "null answered",
  "null for a variable",
  "null given",
  "null where none may be",
  "nullable list",
  "one-of value",
  "one-of with two",
  "skip",
  "variable of Choose",
  "variable of Mood",
  "variable of Want",
  "variable with a default",
];
