/** The formats for reports of `impact`. */
export const reportForms = ["text", "markdown", "html", "changelog", "sarif", "junit", "annotations"] as const;
export type ReportForm = (typeof reportForms)[number];
