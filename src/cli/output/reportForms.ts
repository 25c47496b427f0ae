/** The forms a report of `impact` can have. */
export const reportForms = ["text", "markdown", "html", "changelog", "sarif", "junit", "annotations"] as const;
export type ReportForm = (typeof reportForms)[number];
