/**
 * The text of a file: blocks with a blank line between them and one line end behind the last; what is empty is left out.
 * Large SDKs have thousands of such texts, so they are made in one step.
 */
export function joinedBlocks(blocks: readonly string[]): string {
  return blocks
    .map(ended)
    .filter((block) => block !== "")
    .join("\n");
}

/** A block with one line end behind it; "" where there is nothing in it. */
function ended(block: string): string {
  if (block.endsWith("}\n")) return block;
  const text = block.trimEnd();
  return text === "" ? "" : `${text}\n`;
}
