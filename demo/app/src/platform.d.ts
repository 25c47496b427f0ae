/** The part of Node that the board uses. The SDK itself needs only the web platform. */
declare var process: { readonly argv: readonly string[] } | undefined;
