import type { Contract } from "../../core/contract/model.js";
import type { ContractReading } from "../../core/contractReading.js";

/** One side of a comparison. */
export interface Side {
  readonly reading: ContractReading & { readonly contract: Contract };
  /** How the report calls it: a version, or where it came from. */
  readonly label: string;
  /** It is the pin, so that the SDK that is written was made from it. */
  readonly isPinned?: boolean;
}
