import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { load } from "js-yaml";
import { expect, it } from "vitest";
import { compareRest } from "../../../src/core/change/compareRest.js";
import { judgeUse } from "../../../src/core/change/impact.js";
import type { JudgedChange } from "../../../src/core/change/judgedChange.js";
import type { RestContract } from "../../../src/core/contract/model.js";
import { language } from "../../../src/core/languages/kotlin/language.js";
import { printSdk } from "../../../src/core/languages/printSdk.js";
import { readContract } from "../../../src/core/readContract.js";
import { planRest } from "../../../src/core/sdk/planRest.js";
import { kotlinUses } from "../../../src/workspace/languages/kotlin/source/kotlinUses.js";
import { restEdits } from "../../../truth/restEdits.js";
import { demoText } from "../../support/demoText.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { kotlinRuntime } from "../../support/kotlin/kotlinRuntime.js";
import { packageRoot } from "../../support/packageRoot.js";
import type { Json } from "../random/makeSchema.js";
import { Randomness } from "../random/randomness.js";

const count = Number(process.env["TRUTH_EDITS"] ?? 60);
const firstSeed = Number(process.env["TRUTH_SEED"] ?? 1);
/** Variants of the SDK, each with the app, that are compiled at once. */
const together = 20;

const settings = { namespace: "com.ostrel.harbour" };
const rest = {
  pages: Object.fromEntries(
    ["listBerths", "listReservations", "listVessels"].map((name) => [
      name,
      { by: "cursor", parameter: "cursor" } as const,
    ]),
  ),
};

const folder = join(packageRoot, "test/support/kotlin/harbourApp");
const app = readdirSync(folder)
  .sort()
  .map((file) => ({ document: file, text: readFileSync(join(folder, file), "utf8") }));

function read(document: Json): RestContract {
  const { contract } = readContract("berths", [{ document: "berths.json", text: JSON.stringify(document) }]);
  if (contract?.protocol !== "rest") throw new Error("The contract cannot be read.");
  return contract;
}

function printed(contract: RestContract): Map<string, string> {
  const files = printSdk(
    language,
    { name: "harbour", contracts: [planRest(contract, rest)] },
    { runtime: kotlinRuntime, scalars: new Map(), settings },
  );
  return new Map([...files].filter(([path]) => path.endsWith(".kt")));
}

interface Variant {
  readonly told: string;
  readonly judged: readonly JudgedChange[];
  readonly files: ReadonlyMap<string, string>;
}

/** The app and a variant of its SDK, in packages of their own; the runtime is shared. */
function apart(files: ReadonlyMap<string, string>, at: number): [string, string][] {
  const own = `com.ostrel.harbour.v${String(at)}`;
  const moved = (text: string): string =>
    text.replace(/\bcom\.ostrel\.harbour\.berths\b/g, own).replace(/^(package|import) app\b/gm, `$1 app${String(at)}`);
  return [
    ...[...files].flatMap(([path, text]): [string, string][] =>
      path.startsWith("berths/") ? [[`v${String(at)}/${path}`, moved(text)]] : [],
    ),
    ...app.map(({ document, text }): [string, string] => [`app${String(at)}/${document}`, moved(text)]),
  ];
}

it(`${String(count)} edits break an app in Kotlin where they are said to, and nowhere else`, async () => {
  if (!canCompileKotlin("predictions for Kotlin")) return;
  const document = load(demoText("contracts/v1/berths.yaml")) as Json;
  const before = read(document);
  const sdk = printed(before);
  const texts = (start: string): { document: string; text: string }[] =>
    [...sdk].flatMap(([path, text]) => (path.startsWith(start) ? [{ document: path, text }] : []));
  const uses = kotlinUses(app, {
    name: "harbour",
    connect: "BerthsConnection",
    files: texts("berths/"),
    others: texts("wire/"),
  });
  const facts = language.facts({ settings, rest, scalars: new Map() });
  const variants: Variant[] = [];
  for (let seed = firstSeed; variants.length < count; seed++) {
    const random = new Randomness(seed);
    const edit = random.pick(restEdits);
    const edited = structuredClone(document);
    if (!edit.apply(edited, random)) continue;
    const after = read(edited);
    const changes = compareRest(before, after, facts);
    const judged = judgeUse(changes, "rest", { queries: [], searched: true, source: uses });
    variants.push({ told: `${String(seed)} ${edit.kind}`, judged, files: printed(after) });
  }
  const compiler = KotlinCompiler.shared();
  const runtime = [...kotlinRuntime].map(([file, text]): [string, string] => [
    `wire/${file}`,
    text.replace(/^package wire$/m, "package com.ostrel.harbour.wire"),
  ]);
  const wrong: string[] = [];
  const counts = { breaking: 0, told: 0, right: 0 };
  for (let from = 0; from < variants.length; from += together) {
    const some = variants.slice(from, from + together);
    const files = new Map([...runtime, ...apart(sdk, 999), ...some.flatMap(({ files: each }, at) => apart(each, at))]);
    const { printed: errors } = await compiler.compile(files, { isStrict: false });
    const complaints = errors.split("\n").filter((line) => /^\S+\.kt:\d+:\d+: error: /.test(line));
    expect(complaints.filter((line) => /\/(?:app999|v999|wire)\//.test(line))).toEqual([]);
    some.forEach(({ told, judged }, at) => {
      const inSdk = complaints.find((line) => line.includes(`/v${String(at)}/`));
      if (inSdk !== undefined) wrong.push(`${told}: the SDK does not compile: ${inSdk}`);
      const own = complaints.filter((line) => line.includes(`/app${String(at)}/`));
      // That a credential or another server is needed is no matter of a compiler.
      const predicted = judged.filter(
        ({ use, verdict, code }) =>
          use === "used" &&
          verdict.code === "breaking" &&
          !/^(?:auth\.(?:now-required|scheme\.changed)|server\.)/.test(code),
      );
      if (own.length > 0) counts.breaking++;
      if (predicted.length > 0) counts.told++;
      if (own.length > 0 && predicted.length > 0) counts.right++;
      if (own.length > 0 !== predicted.length > 0)
        wrong.push(
          `${told}: ${own.length > 0 ? `breaks, not told: ${own[0]?.replace(/^.*\/app\d+\//, "") ?? ""}` : "told, does not break"} ${judged.map(({ code, subject, use, verdict, hits }) => `[${code} ${subject} ${use} ${verdict.code} ${hits.map((hit) => hit.owner).join(",")}]`).join(" ")}`,
        );
    });
  }
  process.stdout.write(
    `${String(count)} edits: ${String(counts.breaking)} break the app, ${String(counts.told)} are told, ${String(counts.right)} of them rightly\n`,
  );
  expect(wrong).toEqual([]);
});
