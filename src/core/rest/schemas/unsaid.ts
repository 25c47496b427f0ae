import type { AnyShape, UnionShape } from "../../contract/model.js";

/** The shape of a place about which the contract says nothing. */
export const unsaid: AnyShape = { kind: "any" };

/** The shape that no value has; together with null, of what is always null. */
export const nothing: UnionShape = { kind: "union", members: [] };
