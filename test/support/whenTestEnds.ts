type CleanUp = () => void | Promise<void>;

const cleanUps: CleanUp[] = [];

/** Does something when the running test is over, whatever became of it; what was asked for last is done first. */
export function whenTestEnds(cleanUp: CleanUp): void {
  cleanUps.push(cleanUp);
}

/** Does all that running tests have left to be done. */
export async function cleanUp(): Promise<void> {
  for (let next = cleanUps.pop(); next; next = cleanUps.pop()) await next();
}
