/**
 * Returns the text of a file: blocks with a blank line between them and one line ending after the last. Empty blocks
 * are left out. Large SDKs have thousands of such texts, so they are built in one step.
 */
export function joinedBlocks(blocks: readonly string[]): string {
  return blocks
    .map(ended)
    .filter((block) => block !== "")
    .join("\n");
}

/** A block with one line ending after it; "" if it is empty. */
function ended(block: string): string {
  if (block.endsWith("}\n")) return block;
  const text = block.trimEnd();
  return text === "" ? "" : `${text}\n`;
}
