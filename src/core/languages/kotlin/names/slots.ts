/** The JVM gives a method 255 slots (JVM specification, 4.3.3). The longest additions take some. */
const mostSlots = 250;

/**
 * Returns whether a method can have parameters of some types. A long and a double take two slots, and a mask is added
 * for every 32 parameters with a default.
 */
export function fitsOneMethod(types: readonly string[]): boolean {
  const slots = types.reduce((sum, type) => sum + (type === "Long" || type === "Double" ? 2 : 1), 0);
  return slots + Math.ceil((types.length + 1) / 32) + 3 <= mostSlots;
}
