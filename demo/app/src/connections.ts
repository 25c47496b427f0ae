import { connectBerths, type BerthsConnection } from "./sdk/berths/index.js";
import { connectPassages, type PassagesConnection } from "./sdk/passages/index.js";

export interface Harbour {
  readonly berths: BerthsConnection;
  readonly passages: PassagesConnection;
}

/** One build talks to any host: the address comes in from outside. */
export function connect(address: string): Harbour {
  return {
    berths: connectBerths({ baseUrl: `${address}/berths`, auth: { harbourToken: () => "made-up-token" } }),
    passages: connectPassages({ baseUrl: `${address}/passages`, timeoutMs: 5_000 }),
  };
}
