import type { AnyShape, UnionShape } from "../../contract/model.js";

/** The shape of a place without a type in the contract. */
export const unsaid: AnyShape = { kind: "any" };

/** The shape without any value. With null, it is the shape of a value that is always null. */
export const nothing: UnionShape = { kind: "union", members: [] };
