import { isFailure } from "./failure.js";

/** The result of a call: a value or a failure. */
export type Outcome<Answer, Failure> =
  | { readonly ok: true; readonly answer: Answer; readonly failure?: undefined }
  | { readonly ok: false; readonly failure: Failure; readonly answer?: undefined };

/**
 * Returns the outcome of a call instead of throwing its failure. Errors that are not failures of a call are still
 * thrown.
 */
export async function settled<Answer, Failure>(call: Promise<Answer>): Promise<Outcome<Answer, Failure>> {
  try {
    return { ok: true, answer: await call };
  } catch (error) {
    if (isFailure(error)) return { ok: false, failure: error as Failure };
    throw error;
  }
}

/** Returns the value of an outcome, or throws its failure. */
export async function unsettled<Answer, Failure extends Error>(
  call: Promise<Outcome<Answer, Failure>>,
): Promise<Answer> {
  const outcome = await call;
  if (outcome.ok) return outcome.answer;
  throw outcome.failure;
}

/** The outcomes of a call that responds item by item. A failure is the last one. */
export async function* settledItems<Item, Failure>(
  call: AsyncIterable<Item>,
): AsyncGenerator<Outcome<Item, Failure>, void, undefined> {
  try {
    for await (const item of call) yield { ok: true, answer: item };
  } catch (error) {
    if (!isFailure(error)) throw error;
    yield { ok: false, failure: error as Failure };
  }
}

/**
 * The items of outcomes. A failure among them is thrown.
 *
 * @throws the failure of the first outcome that has one
 */
export async function* unsettledItems<Item, Failure extends Error>(
  call: AsyncIterable<Outcome<Item, Failure>>,
): AsyncGenerator<Item, void, undefined> {
  for await (const outcome of call) {
    if (!outcome.ok) throw outcome.failure;
    yield outcome.answer;
  }
}
