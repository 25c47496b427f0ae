import { Halt, type ExitCode } from "./halt.js";

/**
 * Does something with each, and goes on after one that cannot be read, so that all problems of a run are told.
 *
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

/** What an action gives, or the Halt that it ends in. */
export function haltOr<Result>(act: () => Result): Result | Halt {
  try {
    return act();
  } catch (error) {
    if (error instanceof Halt) return error;
    throw error;
  }
}

/** What an action gives in the end, or the Halt that it ends in. */
export async function haltOrAsync<Result>(act: () => Promise<Result>): Promise<Result | Halt> {
  try {
    return await act();
  } catch (error) {
    if (error instanceof Halt) return error;
    throw error;
  }
}

/** Several as one: each problem once, and the gravest exit code. */
export function mergedHalt(halts: readonly Halt[]): Halt {
  const problems = new Map(halts.flatMap((halt) => halt.problems.map((each) => [JSON.stringify(each), each] as const)));
  const texts = new Map(halts.flatMap((halt) => [...halt.texts]));
  return new Halt([...problems.values()], gravest(halts.map(({ exitCode }) => exitCode)), texts);
}

/** The exit code that says most: one that something could not be read rather than that something was found. */
export function gravest(codes: readonly ExitCode[]): ExitCode {
  return codes.reduce((most, code) => (code > most ? code : most), 0);
}
