import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { language } from "../../src/core/languages/typescript/language.js";
import { playScript } from "../languages/vectors/playScript.js";
import { scriptSdk } from "../languages/vectors/scriptSdk.js";
import { calledKinds, vectorSteps } from "../languages/vectors/vectorSteps.js";
import { runtime } from "../support/readRest.js";

const { plan, steps } = vectorSteps();

/** A bug of the runtime for each kind of vector: the file, the text, and its replacement. */
const bugs: Readonly<Record<(typeof calledKinds)[number], readonly [string, string, string]>> = {
  parameters: ["wire/rarerParameters.ts", 'value, "%7C")', 'value, "|")'],
  bodies: ["wire/forms.ts", 'data.replace(/%20/g, "+")', "data"],
  answers: ["wire/checks.ts", '.replace(/\\//g, "~1")', ""],
  values: ["wire/integers.ts", "-?\\d{16,}", "-?\\d{17,}"],
  events: ["wire/events.ts", "colon + 2", "colon + 1"],
  paging: ["wire/pages.ts", "offset += items.length", "offset += 1"],
  calls: ["wire/auth.ts", 'const others = headers.get("cookie");', "const others: string | null = null;"],
  failures: ["wire/send.ts", "${String(Math.floor(httpStatus / 100))}XX", "${String(Math.floor(httpStatus / 100))}xx"],
  redirects: ["wire/redirects.ts", "to.origin === from.origin || ", "to.protocol === from.protocol || "],
};

it.each(calledKinds)("the vectors of %s find a bug in what they test", async (kind) => {
  const [file, text, instead] = bugs[kind];
  const source = runtime.get(file) ?? "";
  expect(source.split(text)).toHaveLength(2);
  const sdk = await scriptSdk(language, plan, new Map([...runtime, [file, source.replace(text, instead)]]));
  const own = steps.filter((step) => step.kind === kind);
  const played = await playScript(sdk, language.contractNames("rows").connect, own);
  expect(played.filter(({ expected, found }) => !isDeepStrictEqual(expected, found)).length).toBeGreaterThan(0);
});
