import { expect, it } from "vitest";
import { roundTrips } from "./roundTrips.js";
import { printJavascriptSdk } from "../../support/javascriptSdk.js";
import { runtime } from "../../support/readRest.js";
import { checkContracts } from "./checkContracts.js";
import { everyFeature } from "./features.js";
import { seedsFrom } from "./seedsFrom.js";
import { testedCore } from "./testedCore.js";

/** Every value differs between JSON and the app. */
const decoded = {
  dates: "decoded",
  int64: "bigint",
  choices: "open",
  failures: "return",
  testing: true,
  cached: true,
  formats: { uuid: { type: "Own", from: "../own.js", decode: "decodeOwn", encode: "encodeOwn" } },
} as const;

it("random contracts compile and lint with every setting changed", () => {
  const bigints = checkContracts(seedsFrom(1, 20), { runtime, lint: true, settings: decoded });
  const texts = checkContracts(seedsFrom(21, 10), {
    runtime,
    lint: true,
    settings: { int64: "text", dates: "decoded", testing: true, cached: true },
  });
  expect([...bigints.failures, ...texts.failures]).toEqual([]);
}, 300_000);

it("SDKs of random contracts in JavaScript declare the same as those in TypeScript", () => {
  const core = { ...testedCore, printTypescriptSdk: printJavascriptSdk };
  const plain = checkContracts(seedsFrom(1, 30), { core, runtime, lint: false });
  const turned = checkContracts(seedsFrom(31, 10), { core, runtime, lint: false, settings: decoded });
  expect([...plain.failures, ...turned.failures]).toEqual([]);
  expect(Math.min(plain.taken, plain.refused)).toBeGreaterThan(500);
}, 300_000);

// Thirty contain every feature. Twice as many contain more of them together.
const batch = 60;
const contracts = Number(process.env["RANDOM_CONTRACTS"] ?? 60);
const firstSeed = Number(process.env["RANDOM_SEED"] ?? 1);

it(
  `${String(contracts)} random contracts give SDKs that compile, lint, and take exactly what the contracts allow`,
  () => {
    const occurred = new Map<string, number>();
    const total = { contracts: 0, calls: 0, taken: 0, refused: 0, unsampled: 0 };
    const setAside: string[] = [];
    const failures: string[] = [];
    for (let seed = firstSeed; seed < firstSeed + contracts; seed += batch) {
      const checked = checkContracts(seedsFrom(seed, Math.min(batch, firstSeed + contracts - seed)), {
        runtime,
        lint: true,
      });
      for (const key of ["contracts", "calls", "taken", "refused", "unsampled"] as const) total[key] += checked[key];
      for (const [feature, times] of checked.occurred) occurred.set(feature, (occurred.get(feature) ?? 0) + times);
      setAside.push(...checked.setAside);
      failures.push(...checked.failures);
    }
    const rows = [...everyFeature].sort().map((feature) => `${feature} ${String(occurred.get(feature) ?? 0)}`);
    const { calls, taken, refused, unsampled } = total;
    process.stdout.write(
      `${String(total.contracts)} random contracts, ${String(calls)} calls; the compiler took ${String(taken)} values and refused ${String(refused)}; ` +
        `no value found for ${String(unsampled)} places; ${String(setAside.length)} set aside, ${String(failures.length)} failures\n` +
        `occurred: ${rows.join(", ")}\n`,
    );
    expect(failures).toEqual([]);
    expect(setAside).toEqual([]);
    expect([...everyFeature].filter((feature) => !occurred.has(feature))).toEqual([]);
    expect(unsampled).toBeLessThan(calls / 10);
  },
  Math.max(900_000, contracts * 1_000),
);

it("every call of random contracts succeeds against the stand-in server", async () => {
  const { calls, answered, unasked, failures } = await roundTrips(
    1,
    Number(process.env["RANDOM_TRIPS"] ?? 60),
    runtime,
  );
  process.stdout.write(
    `${String(calls)} calls: ${String(answered)} answered as the contract says, ${String(unasked)} without arguments that it allows, ${String(failures.length)} failures\n`,
  );
  expect(failures).toEqual([]);
  expect(unasked).toBeLessThan(calls / 4);
}, 300_000);
