import { Halt, type ExitCode } from "./halt.js";

/**
 * Runs an action for each item. If one cannot be read, it continues with the others, so that all problems are reported.
 *
 * @returns the results in order
 * @throws one Halt with the problems of all that failed
 */
export function allOrHalt<Item, Result>(items: Iterable<Item>, act: (item: Item) => Result): Result[] {
  const results: Result[] = [];
  const halts: Halt[] = [];
  for (const item of items) {
    const outcome = haltOr(() => act(item));
    if (outcome instanceof Halt) halts.push(outcome);
    else results.push(outcome);
  }
  if (halts.length > 0) throw mergedHalt(halts);
  return results;
}

/** Returns the result of an action, or the Halt that it throws. */
export function haltOr<Result>(act: () => Result): Result | Halt {
  try {
    return act();
  } catch (error) {
    if (error instanceof Halt) return error;
    throw error;
  }
}

/** Returns the result of an asynchronous action, or the Halt that it throws. */
export async function haltOrAsync<Result>(act: () => Promise<Result>): Promise<Result | Halt> {
  try {
    return await act();
  } catch (error) {
    if (error instanceof Halt) return error;
    throw error;
  }
}

/** Merges several into one: each problem once, and the most severe exit code. */
export function mergedHalt(halts: readonly Halt[]): Halt {
  const problems = new Map(halts.flatMap((halt) => halt.problems.map((each) => [JSON.stringify(each), each] as const)));
  const texts = new Map(halts.flatMap((halt) => [...halt.texts]));
  return new Halt([...problems.values()], gravest(halts.map(({ exitCode }) => exitCode)), texts);
}

/** Returns the most severe exit code: an unreadable input comes before a finding. */
export function gravest(codes: readonly ExitCode[]): ExitCode {
  return codes.reduce((most, code) => (code > most ? code : most), 0);
}
