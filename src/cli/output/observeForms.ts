/** The formats for reports of `observe`. */
export const observeForms = ["text", "markdown", "junit"] as const;
export type ObserveForm = (typeof observeForms)[number];
