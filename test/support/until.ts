/** Waits until a condition is true, however slow the machine is. The time limit of the test ends the waiting. */
export async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 10));
}
