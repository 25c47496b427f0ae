import type { Problem } from "../problem/problem.js";

/** Thrown when a merge looks into a definition that is still being read; a schema inside it can be read later. */
export class StillReading extends Error {}

/** Thrown while reading one part of a contract; caught where the part can be set aside. */
export class Fault extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
    this.name = "Fault";
  }
}
