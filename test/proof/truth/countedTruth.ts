import { expect } from "vitest";
import type { JudgedChange } from "../../../src/core/change/judge/judgedChange.js";

/** A changed contract, with the predictions and its SDK. */
export interface Variant {
  /** Its name in errors. */
  readonly told: string;
  readonly judged: readonly JudgedChange[];
  readonly files: ReadonlyMap<string, string>;
  /** There is no SDK, because a query is refused. */
  readonly isRefused?: boolean;
}

/** How often an app broke, was predicted to break, and was rightly predicted to; with every wrong case. */
export interface Truth {
  readonly breaking: number;
  readonly told: number;
  readonly right: number;
  readonly wrong: readonly string[];
}

/**
 * Compares a compiler's errors in an app with the predictions for each variant.
 *
 * @param complaintsOf returns the compiler's errors, those in the app with "/app/" in their path
 * @param places the number of variants compiled at once
 */
export async function countedTruth(
  variants: readonly Variant[],
  complaintsOf: (files: ReadonlyMap<string, string>) => Promise<readonly string[]>,
  places = 1,
): Promise<Truth> {
  const wrong: string[] = [];
  const counts = { breaking: 0, told: 0, right: 0 };
  const judge = async (variant: Variant): Promise<void> => {
    const complaints = variant.isRefused ? ["/app/a query is refused"] : await complaintsOf(variant.files);
    const inSdk = complaints.find((line) => !line.includes("/app/"));
    if (inSdk !== undefined) wrong.push(`${variant.told}: the SDK does not compile: ${inSdk}`);
    const first = complaints.find((line) => line.includes("/app/"))?.replace(/^.*\/app\//, "");
    const isTold = variant.judged.some(isToldToBreak);
    if (first !== undefined) counts.breaking++;
    if (isTold) counts.told++;
    if (first !== undefined && isTold) counts.right++;
    if ((first !== undefined) === isTold) return;
    const what = first === undefined ? "told, does not break" : `breaks, not told: ${first}`;
    wrong.push(`${variant.told}: ${what} ${variant.judged.map(shown).join(" ")}`);
  };
  const open = [...variants];
  const work = async (): Promise<void> => {
    for (let next = open.shift(); next; next = open.shift()) await judge(next);
  };
  await Promise.all(Array.from({ length: places }, work));
  return { ...counts, wrong };
}

/** A compiler does not check whether a credential or another server is needed. */
function isToldToBreak({ use, verdict, code }: JudgedChange): boolean {
  return (
    use === "used" && verdict.code === "breaking" && !/^(?:auth\.(?:now-required|scheme\.changed)|server\.)/.test(code)
  );
}

function shown({ code, subject, use, verdict, hits }: JudgedChange): string {
  return `[${code} ${subject} ${use} ${verdict.code} ${hits.map((hit) => hit.owner).join(",")}]`;
}

/** Reports the counts, and expects that no prediction is wrong. */
export function expectTruth(what: string, { breaking, told, right, wrong }: Truth, count: number): void {
  process.stdout.write(
    `${String(count)} edits of ${what}: ${String(breaking)} break the app, ${String(told)} are told, ${String(right)} of them rightly\n`,
  );
  expect(wrong).toEqual([]);
}
