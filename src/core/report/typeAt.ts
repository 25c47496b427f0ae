import type { Contract } from "../contract/model.js";

/** Returns the names of all types of some contracts. */
export function typeNames(...contracts: readonly (Contract | undefined)[]): Set<string> {
  return new Set(
    contracts.flatMap((contract) => (contract ? [...contract.types.values()].map(({ name }) => name) : [])),
  );
}

/**
 * Returns the longest type name at the beginning of a subject, dots included: "harbour.Berth" of "harbour.Berth.note".
 */
export function typeAt(subject: string, names: ReadonlySet<string>): string {
  for (let end = subject.length; end > 0; end -= 1) {
    const next = subject.charAt(end);
    if ((next === "" || ".[( ".includes(next)) && names.has(subject.slice(0, end))) return subject.slice(0, end);
  }
  return subject.split(/[.[( ]/)[0] ?? subject;
}
