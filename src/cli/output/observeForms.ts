/** The forms that what was observed is reported in. */
export const observeForms = ["text", "markdown", "junit"] as const;
export type ObserveForm = (typeof observeForms)[number];
