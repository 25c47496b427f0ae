type CleanUp = () => void | Promise<void>;

const cleanUps: CleanUp[] = [];

/** Runs an action when the current test is over, whatever its result. The last one is run first. */
export function whenTestEnds(cleanUp: CleanUp): void {
  cleanUps.push(cleanUp);
}

/** Runs all actions that are left. */
export async function cleanUp(): Promise<void> {
  for (let next = cleanUps.pop(); next; next = cleanUps.pop()) await next();
}
