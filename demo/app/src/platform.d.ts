/** The little of Node that the board uses; the SDK itself needs only the web platform. */
declare var process: { readonly argv: readonly string[] } | undefined;
