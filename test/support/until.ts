/** Waits until something holds, however slow the machine is; the time limit of the test ends what never comes. */
export async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setTimeout(resolve, 10));
}
