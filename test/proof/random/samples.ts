import { Judge } from "./judge.js";
import type { RandomContract } from "./makeContract.js";
import type { Json } from "./makeSchema.js";
import { Randomness } from "./randomness.js";
import { bytesMark, sampleValue } from "./sampleValue.js";

/** Valid values of a contract, by the place of their schema. */
export class Samples {
  private readonly random: Randomness;
  private readonly judge: Judge;

  constructor(
    private readonly contract: RandomContract,
    seed: number,
    private readonly direction: "request" | "answer" = "request",
  ) {
    this.random = new Randomness(seed);
    this.judge = new Judge(contract.document, contract.version, direction);
  }

  /** Returns a value that Ajv accepts; undefined if none was found. Bytes of forms are Blobs. */
  allowed(pointer: string, inForm: boolean): unknown {
    const { document } = this.contract;
    for (let attempt = 0; attempt < 12; attempt++) {
      const schema = schemaAt(pointer, document) ?? true;
      const value = sampleValue(schema, { random: this.random, document, direction: this.direction, inForm });
      if (value !== undefined && this.judge.judge(pointer, value) === "fits") return withBlobs(value);
    }
    return undefined;
  }
}

function withBlobs(value: unknown): unknown {
  if (value === bytesMark) return new Blob(["bytes"]);
  if (Array.isArray(value)) return value.map(withBlobs);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withBlobs(each)]));
}

/** Returns the value at a JSON pointer of a document. */
export function schemaAt(pointer: string, document: Json): unknown {
  let node: unknown = document;
  for (const token of pointer.split("/").slice(1)) {
    if (typeof node !== "object" || node === null) return undefined;
    node = (node as Json)[token.replaceAll("~1", "/").replaceAll("~0", "~")];
  }
  return node;
}
