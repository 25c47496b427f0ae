import { isStream, type Content } from "../../../src/core/contract/model.js";
import {
  argumentKey,
  typescriptNames,
  type TypescriptNames,
} from "../../../src/core/languages/typescript/names/names.js";
import type { RestPlan, RestCall } from "../../../src/core/sdk/sdkPlan.js";
import { Judge } from "./judge.js";
import type { RandomContract } from "./makeContract.js";
import { schemaAt } from "./samples.js";
import { Randomness } from "./randomness.js";
import { bytesMark, sampleValue } from "./sampleValue.js";

/** The number of values for the compiler. */
export interface ProbeCount {
  /** Values that the raw contract allows, which the types must accept. */
  taken: number;
  /** Values whose type the raw contract refuses, which the types must refuse. */
  refused: number;
  /** Places for which no valid value was found. */
  unsampled: number;
}

interface Probe {
  readonly type: string;
  readonly text: string;
  readonly isTaken: boolean;
  readonly about: string;
}

/** Returns a module with values for every call of a contract, for the compiler. */
export function probeModule(contract: RandomContract, plan: RestPlan, count: ProbeCount): string {
  const prober = new Prober(contract, typescriptNames(plan), count);
  const lines: string[] = [];
  const calls: string[] = [];
  const failures: string[] = [];
  for (const call of plan.calls) {
    const probes = prober.probesOf(call);
    if (probes.length === 0) continue;
    if (probes.some(({ type }) => type.includes("typeof "))) calls.push(prober.names.rest(call).call);
    const { failure } = prober.names.rest(call);
    if (probes.some(({ type }) => type.includes(failure))) failures.push(failure);
    for (const { type, text, isTaken, about } of probes) {
      lines.push(`// ${isTaken ? "" : "@ts-expect-error "}${about}`);
      lines.push(`export const probe${String(lines.length)}: ${type} = ${text};`);
    }
  }
  const from = `./sdk/${plan.name}/index.js`;
  return [
    calls.length > 0 ? `import type { ${calls.join(", ")} } from "${from}";` : "export {};",
    ...(failures.length > 0 ? [`import type { ${failures.join(", ")} } from "${from}";`] : []),
    ...lines,
    "",
  ].join("\n");
}

class Prober {
  private readonly random: Randomness;
  private readonly judges: Readonly<Record<"answer" | "request", Judge>>;

  constructor(
    private readonly contract: RandomContract,
    readonly names: TypescriptNames,
    private readonly count: ProbeCount,
  ) {
    this.random = new Randomness(contract.seed + 1);
    const { document, version } = contract;
    this.judges = { answer: new Judge(document, version, "answer"), request: new Judge(document, version, "request") };
  }

  probesOf(call: RestCall): Probe[] {
    return [...this.argumentProbes(call), ...this.answerProbes(call), ...this.failureProbes(call)];
  }

  private argumentProbes(call: RestCall): Probe[] {
    const places = call.arguments.map((argument) => {
      const { source, required } = argument;
      const name = argumentKey(argument);
      const node = source.kind === "parameter" ? source.parameter : source.content;
      const form = source.kind === "body" ? source.content.form : "json";
      return { name, required, pointer: node.schema.pointer, form };
    });
    const usable = places.filter(({ form }) => form === "json");
    const base: Record<string, string> = {};
    for (const { name, required, pointer, form } of places) {
      if (!required) continue;
      // Form parameters of 2.0 have no common schema.
      if (form === "multipart" && this.contract.version === "2.0") return [];
      if (isStream(form)) {
        base[name] = "[]";
        continue;
      }
      const value =
        form === "bytes"
          ? bytesMark
          : form === "text"
            ? "text"
            : this.allowed(pointer, "request", form === "multipart");
      if (value === undefined) return [];
      base[name] = literal(value);
    }
    const type = `NonNullable<Parameters<typeof ${this.names.rest(call).call}>[1]>`;
    const probe = (name: string, text: string, isTaken: boolean, how: string): Probe => {
      const all = Object.entries({ ...base, [name]: text }).map(([key, each]) => `${JSON.stringify(key)}: ${each}`);
      return { type, text: `{ ${all.join(", ")} }`, isTaken, about: `${call.name} ${JSON.stringify(name)}: ${how}` };
    };
    return usable.flatMap(({ name, pointer, required }) => [
      ...(required ? [] : [probe(name, "undefined", true, "absent")]),
      ...this.verdicts(pointer, "request").map(({ value, isTaken, how }) => probe(name, literal(value), isTaken, how)),
    ]);
  }

  private answerProbes(call: RestCall): Probe[] {
    if (call.answerChoices.length > 0) return this.choiceProbes(call);
    const isStreaming = call.answers.some(({ form }) => isStream(form));
    const performed = `ReturnType<typeof ${this.names.rest(call).call}>`;
    const type = isStreaming
      ? `(${performed} extends AsyncGenerator<infer Item, void, undefined> ? Item : never)`
      : `Awaited<${performed}>`;
    const isOnly = call.answers.length === 1;
    return call.answers.flatMap(({ status, form }) => {
      if (form !== "json") return [];
      const pointer = schemaPointer(call, status);
      if (pointer === undefined) return [];
      return this.verdicts(pointer, "answer")
        .filter(({ isTaken }) => isTaken || isOnly)
        .map(({ value, isTaken, how }): Probe => ({
          type,
          text: literal(value),
          isTaken,
          about: `${call.name} answers: ${how}`,
        }));
    });
  }

  /** The response by requested media type. */
  private choiceProbes(call: RestCall): Probe[] {
    const { answers } = this.names.rest(call);
    return call.answerChoices.flatMap(({ mediaType, answers: planned }) =>
      planned.flatMap((answer) => {
        if (answer.form !== "json") return [];
        const pointer = schemaPointer(call, answer.status, answer.mediaType);
        if (pointer === undefined) return [];
        return this.verdicts(pointer, "answer")
          .filter(({ isTaken }) => isTaken || planned.length === 1)
          .map(({ value, isTaken, how }): Probe => ({
            type: `import("./sdk/c${String(this.contract.seed)}/index.js").${answers}[${JSON.stringify(mediaType)}]`,
            text: literal(value),
            isTaken,
            about: `${call.name} answers ${mediaType}: ${how}`,
          }));
      }),
    );
  }

  private failureProbes(call: RestCall): Probe[] {
    return call.failures.flatMap(({ status, form }) => {
      const pointer = form === "json" ? schemaPointer(call, status) : undefined;
      if (pointer === undefined) return [];
      const key = /^\d+$/.test(status) ? status : JSON.stringify(status);
      const type = `Extract<${this.names.rest(call).failure}, { status: ${key} }>["body"]`;
      return this.verdicts(pointer, "answer").map(({ value, isTaken, how }): Probe => ({
        type,
        text: literal(value),
        isTaken,
        about: `${call.name} fails ${status}: ${how}`,
      }));
    });
  }

  private allowed(pointer: string, direction: "answer" | "request", inForm = false): unknown {
    for (let attempt = 0; attempt < 12; attempt++) {
      const value = this.sample(pointer, direction, inForm);
      if (value !== undefined && this.judges[direction].judge(pointer, value) === "fits") return value;
    }
    this.count.unsampled++;
    return undefined;
  }

  private sample(pointer: string, direction: "answer" | "request", inForm: boolean): unknown {
    const { document } = this.contract;
    const schema = schemaAt(pointer, document);
    return sampleValue(schema ?? true, { random: this.random, document, direction, inForm });
  }

  /** Values that the contract allows, and changed ones, each with Ajv's result. */
  private verdicts(
    pointer: string,
    direction: "answer" | "request",
  ): { value: unknown; isTaken: boolean; how: string }[] {
    const found: { value: unknown; isTaken: boolean; how: string }[] = [];
    const hasAlternatives = /"(?:anyOf|oneOf|\$ref)":/.test(
      JSON.stringify(schemaAt(pointer, this.contract.document) ?? null),
    );
    for (let round = 0; round < 3; round++) {
      const value = this.allowed(pointer, direction);
      if (value === undefined) break;
      found.push({ value, isTaken: true, how: "allowed" });
      this.count.taken++;
      for (let mutation = 0; mutation < 3; mutation++) {
        const mutant = mutated(value, this.random);
        const verdict = this.judges[direction].judge(pointer, mutant);
        if (verdict === "cannot tell") continue;
        const isTaken = verdict === "fits";
        if (!isTaken && this.contract.isInheriting) continue;
        // A changed record may match another alternative, and the compiler then refuses the literal's keys for that
        // one.
        if (isTaken && hasAlternatives) continue;
        found.push({ value: mutant, isTaken, how: "mutated" });
        if (isTaken) this.count.taken++;
        else this.count.refused++;
      }
    }
    return found;
  }
}

/** The place of a JSON response's schema; of the first one without a media type. */
function schemaPointer(call: RestCall, status: string, mediaType?: string): string | undefined {
  const response = call.operation.responses.find((each) => each.status === status);
  const isMeant = (content: Content): boolean =>
    content.form === "json" && (mediaType === undefined || content.mediaType === mediaType);
  return response?.contents.find(isMeant)?.schema.pointer;
}

/** A value changed in one place: another type, null, or a missing key. */
function mutated(value: unknown, random: Randomness): unknown {
  if (typeof value === "object" && value !== null && random.chance(0.75)) {
    if (Array.isArray(value)) {
      if (value.length === 0) return random.pick<unknown>([{ a: 1 }, "list", null]);
      const place = random.below(value.length);
      return value.map((each: unknown, index) => (index === place ? mutated(each, random) : each));
    }
    const keys = Object.keys(value);
    if (keys.length > 0) {
      const key = random.pick(keys);
      const entries = Object.entries(value);
      return random.chance(0.4)
        ? Object.fromEntries(entries.filter(([name]) => name !== key))
        : Object.fromEntries(entries.map(([name, each]) => [name, name === key ? mutated(each, random) : each]));
    }
  }
  const others: unknown[] = ["nothing that was listed", 12.5, true, null, [], [{ never: "said" }]];
  return random.pick(others.filter((other) => typeof other !== typeof value || typeof other === "string"));
}

function literal(value: unknown): string {
  return JSON.stringify(value)
    .replaceAll(JSON.stringify(bytesMark), "new Blob([])")
    .replaceAll('"__proto__":', '["__proto__"]:')
    .replaceAll("\u2028", "\\u2028");
}
