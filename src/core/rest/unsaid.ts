import type { AnyShape } from "../contract/model.js";

/** The shape of a place about which the contract says nothing. */
export const unsaid: AnyShape = { kind: "any" };
