import { makeSchema, type Json, type SchemaContext } from "./makeSchema.js";
import type { Randomness } from "./randomness.js";

/** Ids whose names collide with derived names, or cannot begin an identifier. */
const hostileIds = ["2faStatus", "9", "get thing", "delete", "is", "Promise", "wire", "page-items", "_", "\u00fcber"];

/**
 * Changes the names and responses of a contract's operations, with random numbers of its own, so that the rest of the
 * contract stays the same for its seed.
 */
export function varyOperations(paths: Json, context: SchemaContext, random: Randomness): void {
  const own: SchemaContext = { ...context, depth: 2 };
  const hit = <T>(feature: string, value: T): T => context.random.hit(feature, value);
  Object.values(paths).forEach((item, at) => {
    for (const operation of operationsOf(item as Json)) {
      if (random.chance(0.15))
        operation["operationId"] = hit(
          "hostile operation id",
          `${random.pick(hostileIds)}${at === 0 ? "" : String(at)}`,
        );
      if (context.version === "2.0") continue;
      const responses = operation["responses"] as Record<string, Json>;
      const answer = responses["200"];
      const contents = answer?.["content"] as Json | undefined;
      if (!answer || !contents) continue;
      // The schemas come from the contract's own numbers only as far as these allow.
      const schema = (): Json => ({ schema: makeSchema({ ...own, random: forked(context.random, random) }) });
      if (random.chance(0.15))
        answer["content"] = hit("preferred media type not first", { "text/csv": {}, ...contents });
      if (random.chance(0.12))
        answer["content"] = hit("several JSON answers, another one first", {
          "application/vnd.ostrel.v2+json": schema(),
          ...contents,
          "application/vnd.ostrel.v3+json": schema(),
        });
      if (random.chance(0.08) && "application/json" in contents)
        answer["content"] = hit("whole or stream", { "text/event-stream": schema(), ...contents });
      if (random.chance(0.1)) {
        const by = random.pick(["cursor", "offset", "page"]);
        const deprecated = random.chance(0.3) ? { deprecated: hit("deprecated parameter of pages", true) } : {};
        if (random.chance(0.3)) operation["deprecated"] = hit("deprecated pages", true);
        operation["parameters"] = [
          ...((operation["parameters"] ?? []) as unknown[]).filter((each) => (each as Json)["name"] !== by),
          { name: by, in: "query", schema: { type: by === "cursor" ? "string" : "integer" }, ...deprecated },
        ];
        answer["content"] = hit(`pages by ${by}`, {
          "application/json": {
            schema: {
              type: "object",
              required: ["items"],
              properties: {
                items: { type: "array", items: (schema() as { schema: unknown }).schema },
                nextCursor: { type: "string" },
              },
            },
          },
        });
      }
    }
  });
}

/** Strings that look like the separator between union members, or like their end. */
const marksOfTypes = ["a | b", "} | {", '"', "`", "(a", "[ | ]", "\\", "${x} | y", "=> | >", "<b"];

/** Gives operations a parameter with a long enum of odd strings, with random numbers of its own. */
export function varyChoices(paths: Json, { random: features, version }: SchemaContext, random: Randomness): void {
  for (const item of Object.values(paths))
    for (const operation of operationsOf(item as Json)) {
      if (!random.chance(0.1)) continue;
      const values = marksOfTypes.filter(() => random.chance(0.7));
      const choice = {
        type: "string",
        enum: [...values, ...values.map((value) => `${value} and ${value}, once more`)],
      };
      const parameter = { name: "marks", in: "query", ...(version === "2.0" ? choice : { schema: choice }) };
      const others = ((operation["parameters"] ?? []) as unknown[]).filter(
        (each) => (each as Json)["name"] !== "marks",
      );
      operation["parameters"] = features.hit("long choice of odd texts", [...others, parameter]);
    }
}

function operationsOf(item: Json): Json[] {
  const { additionalOperations = {}, ...methods } = item as { additionalOperations?: Json };
  return [...Object.values(methods), ...Object.values(additionalOperations)].filter(
    (each) => typeof each === "object" && each !== null && "responses" in each,
  );
}

/** Numbers of one generator, with features counted by the other. */
function forked(counting: Randomness, random: Randomness): Randomness {
  return Object.assign(Object.create(Object.getPrototypeOf(random) as object) as Randomness, random, {
    occurred: counting.occurred,
    state: random.below(2 ** 31),
  });
}
