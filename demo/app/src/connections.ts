import { connectBerths, type BerthsConnection } from "./sdk/berths/index.js";
import { connectPassages, type PassagesConnection } from "./sdk/passages/index.js";
import { renewable, retrying } from "./sdk/wire/index.js";

export interface Harbour {
  readonly berths: BerthsConnection;
  readonly passages: PassagesConnection;
}

/** One build works with any host: the address is an argument. */
export function connect(address: string): Harbour {
  const auth = { harbourToken: renewable(() => "made-up-token") };
  return {
    berths: connectBerths({ baseUrl: `${address}/berths`, auth, around: [retrying()] }),
    passages: connectPassages({ baseUrl: `${address}/passages`, timeoutMs: 5_000 }),
  };
}
