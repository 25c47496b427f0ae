import { isDeepStrictEqual } from "node:util";
import { expect, it } from "vitest";
import { compileSteps, playCompiled } from "../../languages/kotlin/playKotlin.js";
import { vectorSteps, type calledKinds } from "../../languages/vectors/vectorSteps.js";
import { canCompileKotlin, KotlinCompiler } from "../../support/kotlin/kotlinCompiler.js";
import { isThorough } from "./compiledInKotlin.js";

type Bug = readonly [file: string, text: string, instead: string];

/** Bugs of the runtime, by the kind of vector that must find them. */
const bugs: readonly (readonly [(typeof calledKinds)[number], Bug])[] = [
  ["parameters", ["RarerParameters.kt", 'value, "%7C")', 'value, "|")']],
  ["parameters", ["Parameters.kt", 'key + (if (explode) "=" else ",") + text(each)', 'key + "," + text(each)']],
  ["bodies", ["FormBodies.kt", '.replace("%20", "+")', ""]],
  ["answers", ["Forms.kt", '.replace("/", "~1")', ""]],
  [
    "answers",
    ["Checks.kt", "if (name !in known) holdBelow(name, each, rest)", "if (name in known) holdBelow(name, each, rest)"],
  ],
  ["values", ["Instants.kt", "appendInstant(3)", "appendInstant(0)"]],
  [
    "values",
    ["JsonParser.kt", "JsonPrimitive = JsonUnquotedLiteral(text)", "JsonPrimitive = JsonPrimitive(text.toDouble())"],
  ],
  ["answers", ["JsonParser.kt", " && text.startsWith(known.content, from)", ""]],
  ["answers", ["JsonFields.kt", "values[at] = value", "Unit"]],
  ["events", ["Events.kt", '.removePrefix(" ")', ""]],
  ["events", ["Events.kt", 'if (isFirstLine) text.removePrefix("\\uFEFF") else text', "text"]],
  ["paging", ["Pages.kt", "place += step(items)", "place += 1"]],
  ["paging", ["Pages.kt", 'following == null || following == ""', "following == null"]],
  ["calls", ["Auth.kt", 'if (others == null) "" else "$others; "', '""']],
  ["failures", ["Send.kt", '"${status / 100}XX"', '"${status / 100}xx"']],
  ["redirects", ["Redirects.kt", " && one.port == other.port", ""]],
  ["redirects", ["Redirects.kt", '.removeAll("content-type")', ""]],
  ["redirects", ["Redirects.kt", 'response.code < 303 && method == "POST"', "response.code < 303"]],
];

it.skipIf(!isThorough)(
  `${String(bugs.length)} bugs of the runtime in Kotlin are found by the vectors of their kind`,
  async ({ skip }) => {
    skip(!canCompileKotlin("planted bugs in Kotlin"));
    const compiler = KotlinCompiler.shared();
    const { plan, steps } = vectorSteps();
    const compiled = await compileSteps(compiler, { plan, steps });
    const missed: string[] = [];
    for (const [kind, [file, text, instead]] of bugs) {
      const path = `wire/${file}`;
      const source = compiled.runtime.get(path) ?? "";
      expect([file, text, source.split(text).length]).toEqual([file, text, 2]);
      const planted = new Map([...compiled.runtime, [path, source.replace(text, () => instead)]]);
      const runtime = await compiler.compile(planted, { isStrict: false });
      expect(runtime.isFine ? "" : runtime.printed).toBe("");
      const played = await playCompiled(compiler, compiled, [runtime.classes]);
      const wrong = played.filter(({ expected, found }) => !isDeepStrictEqual(expected, found));
      if (!wrong.some(({ step }) => step.kind === kind)) missed.push(`${file}: ${text}`);
      process.stdout.write(`${file}: ${String(wrong.length)} rows found it\n`);
    }
    expect(missed).toEqual([]);
  },
);
