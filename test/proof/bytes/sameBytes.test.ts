import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, it } from "vitest";
import { hashOf } from "../../../src/workspace/files/textFile.js";
import { packageRoot } from "../../support/packageRoot.js";
import { runtime } from "../../support/readRest.js";
import { madeSdks } from "./madeSdks.js";

const kept = join(packageRoot, "test/proof/bytes/hashes.json");
const digits = 16;

/** The files of an SDK without those that are only copied into it: only the names of the runtime. */
function hashOfSdk(files: ReadonlyMap<string, string>): string {
  const parts = [...files].map(([path, text]) =>
    path.startsWith("wire/") && path !== "wire/index.ts" ? path : [path, text],
  );
  return hashOf(JSON.stringify(parts)).slice(0, digits);
}

/** `npm run bytes` writes the hashes again, for an intended change of the output. */
it("SDKs have not changed by a byte", () => {
  const hashes: Record<string, string> = { runtime: hashOf(JSON.stringify([...runtime])).slice(0, digits) };
  for (const { name, files } of madeSdks()) hashes[name] = hashOfSdk(files());
  const count = Object.keys(hashes).length - 1;
  if (process.env["RENEW_HASHES"] !== undefined) writeFileSync(kept, `${JSON.stringify(hashes, null, 2)}\n`);
  const known = JSON.parse(readFileSync(kept, "utf8")) as Record<string, string>;
  const names = new Set([...Object.keys(hashes), ...Object.keys(known)]);
  const changed = [...names].filter((name) => hashes[name] !== known[name]);
  process.stdout.write(`${String(count)} SDKs are what they were but for ${String(changed.length)}\n`);
  expect(changed).toEqual([]);
  expect(count).toBeGreaterThanOrEqual(300);
});
