import type { Problem } from "../problem/problem.js";

/**
 * Thrown when a merge needs a definition that is still being read. A schema inside the definition can be read later.
 */
export class StillReading extends Error {}

/** Thrown while reading one part of a contract. It is caught where that part can be skipped. */
export class Fault extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
    this.name = "Fault";
  }
}
