/** Waits until somebody ends the program from outside. */
export function interrupted(): Promise<void> {
  return new Promise((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM"] as const)
      process.once(signal, () => {
        resolve();
      });
  });
}
