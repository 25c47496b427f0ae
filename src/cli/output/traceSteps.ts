import { untraced, type Environment, type Trace } from "../../workspace/project/trace.js";

/**
 * Returns a function that writes a line for each step: milliseconds since the start and since the step before, and the
 * step.
 *
 * @param write receives a line
 * @returns a function that does nothing unless RHEMA_DEBUG is set in the environment
 */
export function traceSteps(environment: Environment, write: (line: string) => void): Trace {
  if ((environment["RHEMA_DEBUG"] ?? "0") === "0") return untraced;
  const startedAt = performance.now();
  let lastAt = startedAt;
  const shown = (ms: number): string => ms.toFixed(1).padStart(8);
  return (step) => {
    const now = performance.now();
    write(`debug: ${shown(now - startedAt)} ms ${shown(now - lastAt)} ms  ${step()}`);
    lastAt = now;
  };
}
