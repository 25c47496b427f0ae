import { join } from "node:path";
import type { Reference, RestContract, Shape } from "../../src/core/contract/model.js";
import { printTypescriptSdk } from "./typescriptSdk.js";
import { readContract } from "../../src/core/readContract.js";
import { planRest, type RestSettings } from "../../src/core/sdk/planRest.js";
import type { Problem } from "../../src/core/problem/problem.js";
import { contractWith } from "./smallContract.js";
import { packageRoot } from "./packageRoot.js";
import { runtimeSources } from "../../src/workspace/generate/runtimeSources.js";

export interface RestRead {
  readonly contract: RestContract;
  readonly problems: readonly Problem[];
}

/** Reads a REST contract given as data. */
export function readRest(data: unknown): RestRead {
  const { contract, problems } = readContract("api", [{ document: "api.json", text: JSON.stringify(data) }]);
  if (contract?.protocol !== "rest") throw new Error(problems.map((each) => each.message).join("\n"));
  return { contract, problems };
}

/** Returns the definition of a schema with the name `Subject`. */
export function readSchema(schema: unknown, others: Record<string, unknown> = {}, dialect = "3.1.0"): Reference {
  const { contract } = readRest(contractWith({ ...others, Subject: schema }, {}, dialect));
  const definition = contract.types.get("Subject");
  if (!definition) throw new Error(`Subject was set aside: ${contract.setAside.map((each) => each.why).join("; ")}`);
  return { shape: definition.shape, nullable: definition.nullable };
}

/** Returns a shape without places and descriptions, for comparing in tests. */
export function bare(shape: Shape | Reference): unknown {
  return JSON.parse(
    JSON.stringify(shape, (key, value: unknown) =>
      ["place", "description", "example", "deprecated"].includes(key) ? undefined : value,
    ),
  ) as unknown;
}

export const runtime = runtimeSources(join(packageRoot, "runtimes/typescript"));

/** The files of an SDK over one REST contract. */
export function printRest(data: unknown, settings: RestSettings = {}): Map<string, string> {
  const { contract } = readRest(data);
  return printTypescriptSdk(
    { name: "app", contracts: [planRest(contract, settings)] },
    { runtime, scalars: new Map() },
  );
}
